import { Slider } from "radix-ui";
import { useMemo } from "react";
import type { Schema } from "../../api/client";
import { section, type Stratum } from "../../drawing/section";
import { breaksTo } from "./breaking";
import { partWords, type SeenReading } from "./parts";
import type { Layer } from "./stack";

const W = 704;
const H = 158;

/** The section through the relief, with a control that peels the newest layers back. */
export function SectionPanel(props: {
  zone: Schema["ZoneDto"];
  reading: SeenReading;
  /** The part of the zone that is looked at, by its name; null for the whole. */
  part: string | null;
  onPart: (part: string | null) => void;
  layers: Layer[];
  shown: number;
  peel: number;
  onPeel: (peel: number) => void;
  /** Shows the left half as it was below this layer; null shows the whole as it is. */
  before: number | null;
  onBefore: () => void;
}) {
  const { zone, reading, layers, shown, peel, onPeel, before } = props;
  const drawing = useMemo(() => {
    const drawn = reading.layers.map((r) => {
      const layer = layers.find((l) => l.id === r.id && l.technique === "chip through");
      return layer ? { ...r, breaksTo: breaksTo(layers, layer) } : r;
    });
    return section(zone, drawn, W, H);
  }, [zone, reading.layers, layers]);
  const top = layers[shown - 1];
  const says = top ? `after layer ${shown}, ${top.technique}` : "bare";
  return (
    <figure className="relative mt-2 shrink-0 overflow-hidden rounded-[3px] bg-ground text-[var(--on-ground)] contain-content">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        preserveAspectRatio="none"
        className="block h-[150px] w-full contain-strict"
        aria-hidden="true"
      >
        {before !== null && (
          <>
            <clipPath id="section-left">
              <rect width={W / 2} height={H} />
            </clipPath>
            <clipPath id="section-right">
              <rect x={W / 2} width={W} height={H} />
            </clipPath>
          </>
        )}
        <path d={drawing.ground} fill={reading.ground} />
        {before !== null && (
          <g clipPath="url(#section-left)">
            <Strata strata={drawing.strata.slice(0, Math.min(before, shown))} />
            <Edges strata={drawing.strata.slice(0, Math.min(before, shown))} />
          </g>
        )}
        {/* Cutting costs a frame while a slider moves; only what is shown in halves is cut. */}
        <g clipPath={before === null ? undefined : "url(#section-right)"}>
          <Strata strata={drawing.strata.slice(0, shown)} />
          <Edges strata={drawing.strata.slice(0, shown)} />
        </g>
        {before !== null && (
          <path d={`M${W / 2} 0V${H}`} stroke="var(--on-ground)" strokeWidth="1.5" strokeDasharray="5 3" />
        )}
      </svg>
      {reading.parts.length > 1 && (
        <Parts parts={reading.parts} chosen={props.part} onChoose={props.onPart} />
      )}
      <figcaption className="absolute top-1.5 left-3 truncate text-xs max-md:top-auto max-md:bottom-1 max-md:max-w-[90%] md:max-w-[calc(100%-350px)]">
        {before === null ? `Section ${says}` : `Left: before layer ${before + 1}. Right: ${says}`}
        {layers.length > 0 &&
          ` — films drawn ${Math.max(1, Math.round(drawing.thicker / 10) * 10)} × thicker than life`}
      </figcaption>
      <div className="absolute top-1 right-2 flex items-center gap-2 rounded-full bg-card px-3 py-0.5 text-xs text-ink">
        <button
          type="button"
          aria-pressed={before !== null}
          className={`min-h-6 border-r border-line pr-2 ${before === null ? "" : "font-semibold"}`}
          onClick={props.onBefore}
        >
          Before and after
        </button>
        <span id="peel-label">Peel back</span>
        <Slider.Root
          className="relative flex h-5 w-28 touch-none items-center"
          min={0}
          max={Math.max(1, layers.length)}
          step={1}
          value={[Math.min(shown, layers.length)]}
          onValueChange={([v]) => onPeel(layers.length - (v ?? 0))}
        >
          <Slider.Track className="relative h-0.5 grow bg-line">
            <Slider.Range className="absolute h-full bg-tide" />
          </Slider.Track>
          <Slider.Thumb
            aria-labelledby="peel-label"
            aria-valuetext={peel ? `${peel} peeled back, ${says}` : "all layers on"}
            className="block size-3.5 rounded-full bg-tide"
          />
        </Slider.Root>
      </div>
    </figure>
  );
}

/** Which part of the zone section and stack show; the whole comes first. */
function Parts(props: {
  parts: Schema["PartDto"][];
  chosen: string | null;
  onChoose: (part: string | null) => void;
}) {
  const chosen = props.parts.some((p) => p.name === props.chosen) ? props.chosen : null;
  const all = [
    { name: null, text: "the whole" },
    ...props.parts.map((p) => ({ name: p.name, text: partWords(p) })),
  ];
  return (
    <div
      role="group"
      aria-label="Part of the zone"
      className="absolute top-8 right-2 flex md:top-auto md:bottom-1.5 max-w-[calc(100%-16px)] overflow-x-auto rounded-full bg-card px-1 text-xs text-ink"
    >
      {all.map((p) => (
        <button
          key={p.name ?? ""}
          type="button"
          data-part={p.name ?? ""}
          aria-pressed={p.name === chosen}
          className={`min-h-6 rounded-full px-2 whitespace-nowrap ${p.name === chosen ? "bg-tide-wash font-semibold" : ""}`}
          onClick={() => props.onChoose(p.name)}
        >
          {p.text}
        </button>
      ))}
    </div>
  );
}

function Strata({ strata }: { strata: Stratum[] }) {
  return strata.map((s) => (
    <g key={s.id}>
      {s.runs.map((r, i) => (
        // Sharp edges leave no seams between films; stroking them shut would cost a frame while a slider moves.
        <path key={i} d={r.d} fill={r.fill} shapeRendering="crispEdges" />
      ))}
    </g>
  ));
}

/** The upper edges of all films: one path. */
function Edges({ strata }: { strata: Stratum[] }) {
  const d = strata.map((s) => s.outline).join("");
  return <path d={d} fill="none" stroke="#000" strokeOpacity="0.28" strokeWidth="0.5" />;
}
