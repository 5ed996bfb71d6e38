import { Piece } from "../../drawing/Piece";
import type { Preset } from "./presets";

/** Kinds of piece to begin from, each drawn; arrow keys go from one to the next. */
export function Kinds(props: {
  presets: readonly Preset[];
  chosen: string | null;
  onChoose: (preset: Preset) => void;
}) {
  return (
    <fieldset className="grid grid-cols-1 gap-2 sm:grid-cols-2">
      <legend className="sr-only">Kind of piece</legend>
      {props.presets.map((p) => (
        <label
          key={p.kind}
          className={`flex items-center gap-3 border p-3 text-left has-focus-visible:outline-2 has-focus-visible:outline-offset-2 has-focus-visible:outline-tide ${props.chosen === p.kind ? "border-tide bg-tide-wash shadow-[inset_3px_0_0_var(--tide)]" : "border-line bg-card hover:border-ink"}`}
        >
          <input
            type="radio"
            name="kind"
            className="sr-only"
            checked={props.chosen === p.kind}
            onChange={() => props.onChoose(p)}
          />
          <Piece kind={p.kind} className="w-24 shrink-0" />
          <span className="min-w-0">
            <b className="text-base">{p.kind.charAt(0).toUpperCase() + p.kind.slice(1)}</b>
            <span className="block text-soft">{p.says}</span>
            <span className="block text-xs text-soft">
              Zones: {p.zones.map((z) => z.name.toLowerCase()).join(", ")}
            </span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}
