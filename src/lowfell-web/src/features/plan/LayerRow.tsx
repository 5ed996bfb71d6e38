import { memo } from "react";
import type { Schema } from "../../api/client";
import { Hatch } from "../../drawing/Hatch";
import { IconButton } from "../../kit/Button";
import { severities } from "../../kit/severity";
import { LayerEditor } from "./LayerEditor";
import { differs } from "../../shared/words";
import { capital, detailWords, paintWords, waitWords } from "./layerWords";
import { same, type Layer } from "./stack";
import type { ColumnProps } from "./column";
import type { SeenLayer } from "./parts";
import { handWords } from "./colour/hand";

type Props = ColumnProps & {
  layer: Layer;
  number: number;
  said?: SeenLayer;
  findings: Schema["FindingDto"][];
  tabbable: boolean;
};

const order = ["stop", "caution", "hint"] as const;

/** A row is drawn again only when something on it changes; a reading says most rows anew with the same words. */
export const LayerRow = memo(
  Row,
  (a, b) =>
    a.layer === b.layer &&
    a.number === b.number &&
    a.layers.length === b.layers.length &&
    a.tabbable === b.tabbable &&
    (a.selected === a.layer.id) === (b.selected === b.layer.id) &&
    (a.editing === a.layer.id) === (b.editing === b.layer.id) &&
    a.editing !== a.layer.id &&
    a.peel === b.peel &&
    a.newestOnTop === b.newestOnTop &&
    a.byId === b.byId &&
    same(a.said, b.said) &&
    same(a.findings, b.findings),
);

function Row(props: Props) {
  const { layer, number, said, findings, byId, selected, editing, peel, layers } = props;
  const chosen = selected === layer.id;
  const open = editing === layer.id;
  const peeled = number > layers.length - peel;
  const worst = order.find((s) => findings.some((f) => f.severity === s));
  const paint = paintWords(layer, byId);
  const details = detailWords(layer, byId);
  return (
    <li
      data-row={layer.id}
      data-layer={number}
      className="relative border-b border-hair bg-card data-held:z-10 data-held:shadow-lg"
    >
      <div
        className={`flex items-stretch md:h-[36px] ${chosen ? "shadow-[inset_3px_0_0_var(--tide)]" : ""} ${peeled ? "opacity-45" : ""}`}
      >
        <button
          type="button"
          data-select
          tabIndex={props.tabbable ? 0 : -1}
          aria-expanded={open}
          aria-current={chosen ? "true" : undefined}
          className="grid min-w-0 flex-1 cursor-default grid-cols-[20px_16px_minmax(0,1fr)_auto] items-center gap-x-2 px-2.5 max-md:py-1 md:grid-cols-[20px_16px_minmax(86px,112px)_minmax(0,1fr)_auto] text-left focus-visible:outline-offset-[-2px]"
          onFocus={() => props.onSelect(layer.id)}
          onClick={() => {
            props.onSelect(layer.id);
            props.onEdit(open ? null : layer.id);
          }}
          onKeyDown={(e) => {
            if (e.key === "Escape") props.onEdit(null);
          }}
        >
          <span className="text-xs text-soft">{number}</span>
          <Hatch technique={layer.technique} />
          <span className="truncate font-semibold">
            {capital(layer.technique)}
            {worst && (
              <span
                className={`ml-1 text-xs ${severities[worst].tint}`}
                data-tip={findings.map((f) => f.title).join("\n")}
              >
                <span aria-hidden="true">{severities[worst].sign}</span>
                <span className="sr-only">{worst}</span>
              </span>
            )}
          </span>
          <span className="min-w-0 text-xs leading-[16px] max-md:col-span-2 max-md:col-start-3 max-md:row-start-2">
            <span className="block truncate text-sm leading-[17px]">{paint}</span>
            <span className="block truncate text-soft">{details}</span>
          </span>
          <span
            data-tip={
              said && number < layers.length && said.neededWaitMinutes > 0
                ? `wants ${waitWords(said.neededLowMinutes)} to ${waitWords(said.neededHighMinutes)}, usually ${waitWords(said.neededWaitMinutes)}: an estimate, the label wins`
                : undefined
            }
            className={`text-xs whitespace-nowrap ${layer.waitMinutes === null ? "text-soft" : "font-semibold"}`}
          >
            {number === layers.length && layer.waitMinutes === null
              ? "—"
              : waitWords(layer.waitMinutes ?? said?.neededWaitMinutes ?? 0)}
          </span>
        </button>
        <Cells said={said} />
      </div>
      {open && (
        <div
          data-editor
          className="relative border-t border-hair px-3 py-2.5 shadow-[inset_3px_0_0_var(--tide)]"
        >
          <LayerEditor {...props} />
          <div className="mt-2 flex gap-1">
            <IconButton name="Move up" onClick={() => props.onMove(layer.id, props.newestOnTop ? 1 : -1)}>
              ↑
            </IconButton>
            <IconButton name="Move down" onClick={() => props.onMove(layer.id, props.newestOnTop ? -1 : 1)}>
              ↓
            </IconButton>
            <button
              type="button"
              className="min-h-6 px-2 text-xs underline"
              onClick={() => props.onDuplicate(layer.id)}
            >
              Duplicate
            </button>
            <button
              type="button"
              className="min-h-6 px-2 text-xs text-signal underline"
              onClick={() => props.onRemove(layer.id)}
            >
              Remove layer
            </button>
            <button
              type="button"
              className="ml-auto min-h-6 px-2 text-xs underline"
              onClick={() => {
                props.onEdit(null);
                props.focusRow(layer.id);
              }}
            >
              Done
            </button>
          </div>
        </div>
      )}
    </li>
  );
}

const bands = ["recess", "field", "raised"] as const;

/** Where thin and heavy hands end, below the usual colour; left out where nobody could tell them apart. */
function Band({ range }: { range: Schema["RangeAt"] }) {
  if (range.difference < 1) return null;
  return (
    <span className="flex h-[7px] gap-px pt-px" data-band={range.difference}>
      <span className="flex-1" style={{ backgroundColor: range.thin }} />
      <span className="flex-1" style={{ backgroundColor: range.heavy }} />
    </span>
  );
}

/** Recess, field and raised after this layer; on a neutral ground, and in words for those who cannot see them. */
function Cells({ said }: { said?: SeenLayer }) {
  if (!said) return <span className="w-[108px] shrink-0 bg-ground xl:w-[138px]" />;
  const cells = [said.recess, said.field, said.raised];
  return (
    <span
      role="img"
      aria-label={`recess ${said.recess}, field ${said.field}, raised ${said.raised}; the field changed: ${differs(said.change.field)}`}
      data-tip={[
        ...(["recess", "field", "raised"] as const).map(
          (p) =>
            `${p} ${said[p]}, changed: ${differs(said.change[p])}${said.range ? `; ${handWords(said.range[p])}` : ""}`,
        ),
        ...(said.hidingEstimated ? ["hiding is an estimate"] : []),
      ].join("\n")}
      className="flex w-[108px] shrink-0 bg-ground contain-strict xl:w-[138px]"
      data-colours={cells.join(" ")}
    >
      {cells.map((c, i) => (
        <span key={i} className="mx-px flex flex-1 flex-col">
          <span className="flex-1" style={{ backgroundColor: c }} />
          {said.range && <Band range={said.range[bands[i]!]} />}
        </span>
      ))}
    </span>
  );
}
