import { Slider } from "radix-ui";
import { useMemo } from "react";
import type { Schema } from "../../api/client";
import { section } from "../../drawing/section";
import type { Layer } from "./stack";

const W = 704;
const H = 158;

/** The section through the relief, with a control that peels the newest layers back. */
export function SectionPanel(props: {
  zone: Schema["ZoneDto"];
  reading: Schema["Reading"];
  layers: Layer[];
  shown: number;
  peel: number;
  onPeel: (peel: number) => void;
}) {
  const { zone, reading, layers, shown, peel, onPeel } = props;
  const drawing = useMemo(() => section(zone, reading.layers, W, H), [zone, reading.layers]);
  const top = layers[shown - 1];
  const says = top ? `after layer ${shown}, ${top.technique}` : "bare";
  return (
    <figure className="relative mt-2 shrink-0 overflow-hidden rounded-[3px] bg-ground text-[var(--on-ground)]">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        preserveAspectRatio="none"
        className="block h-[150px] w-full"
        aria-hidden="true"
      >
        <path d={drawing.ground} fill={reading.ground} />
        {drawing.strata.slice(0, shown).map((s) => (
          <g key={s.id}>
            {s.runs.map((r, i) => (
              <path key={i} d={r.d} fill={r.fill} stroke={r.fill} strokeWidth="1" />
            ))}
            <path d={s.outline} fill="none" stroke="#000" strokeOpacity="0.28" strokeWidth="0.5" />
          </g>
        ))}
      </svg>
      <figcaption className="absolute top-1.5 left-3 max-w-[calc(100%-230px)] truncate text-xs">
        Section {says}
        {layers.length > 0 &&
          ` — films drawn ${Math.max(1, Math.round(drawing.thicker / 10) * 10)} × thicker than life`}
      </figcaption>
      <div className="absolute top-1 right-2 flex items-center gap-2 rounded-full bg-card px-3 py-0.5 text-xs text-ink">
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
