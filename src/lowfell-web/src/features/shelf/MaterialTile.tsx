import type { Schema } from "../../api/client";
import { Drawdown } from "../../shared/Drawdown";

type Material = Schema["MaterialCard"];

/** A card over black and over white with what one coat looks like on it. */
export function MaterialTile({
  material: m,
  chosen,
  onOpen,
}: {
  material: Material;
  chosen: boolean;
  onOpen: () => void;
}) {
  const one = m.drawdowns[0];
  const out = m.stockMl === 0;
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-current={chosen ? "true" : undefined}
      className={`block w-full border bg-card text-left hover:border-ink ${chosen ? "border-tide shadow-[inset_3px_0_0_var(--tide)]" : "border-line"}`}
    >
      <Drawdown over={one} clear={m.opticsSource === "clear"} />
      <span className="block px-2.5 pt-1.5 pb-2">
        <span className="flex items-baseline gap-2">
          <span className="min-w-0 flex-1 truncate font-semibold">{m.name}</span>
          <span className="text-xs text-soft">{m.code}</span>
        </span>
        <span className="block truncate text-xs text-soft">
          {m.kind} · {m.carrier === "none" ? "no carrier" : m.carrier} · {m.sheen}
        </span>
        <span className="flex justify-between text-xs">
          <span>
            {hiding(m)}
            {m.opticsSource === "estimated" && <em className="text-soft"> est.</em>}
          </span>
          <span className={out ? "font-semibold text-signal" : "text-soft"}>
            {out ? "▲ none left" : `${m.stockMl} ml left`}
          </span>
        </span>
      </span>
    </button>
  );
}

export function hiding(m: Material): string {
  if (m.opticsSource === "clear") return "clear";
  if (m.opticsSource === "over white") return "transparent";
  if (["pigment", "pencil", "tuft", "decal"].includes(m.kind)) return "own colour";
  return m.predictedCoatsToHide ? `hides in ${m.predictedCoatsToHide}` : "hardly hides";
}
