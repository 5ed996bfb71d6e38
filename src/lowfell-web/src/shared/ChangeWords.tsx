import type { Schema } from "../api/client";
import { moved, severities } from "../kit/severity";
import { differs, minutes, ml } from "./words";

type Change = Schema["ChangeDto"];

/** What an edit does before anyone makes it: colours, minutes, amounts, remarks. */
export function ChangeWords({ change, pieces }: { change: Change; pieces?: number }) {
  const positions = ["recess", "field", "raised"] as const;
  const largest = Math.max(...positions.map((p) => change.difference[p]));
  const time = Math.round(change.minutes);
  return (
    <div className="text-xs" data-change>
      <div className="flex items-center gap-2">
        <svg width="72" height="26" className="shrink-0" role="img" aria-label={colourWords(change)}>
          {positions.map((p, i) => (
            <g key={p}>
              <rect x={i * 24} width="23" height="13" fill={change.before[p]} />
              <rect x={i * 24} y="13" width="23" height="13" fill={change.after[p]} />
            </g>
          ))}
        </svg>
        <span>
          {largest < 0.05
            ? "The finished colour stays."
            : `Finished colour changes at most by this: ${differs(largest)}.`}
        </span>
      </div>
      <p className="mt-1">
        <b>{timeWords(time)}</b>
        {pieces !== undefined && pieces > 1 ? ` over ${pieces} pieces` : ""} (an estimate) ·{" "}
        {moved(change.gone.length, change.come.length)}
        {change.come.length > 0 && ": "}
        {change.come.map((c, i) => (
          <span key={i} className={severities[c.severity].tint}>
            {i > 0 && ", "}
            <span aria-hidden="true">{severities[c.severity].sign} </span>
            {c.title.toLowerCase()}
          </span>
        ))}
      </p>
      {change.amounts.length > 0 && (
        <p className="mt-0.5 text-soft">
          {change.amounts
            .slice(0, 4)
            .map((a) => `${a.ml > 0 ? "+" : "−"}${ml(Math.abs(a.ml))} ${a.name}`)
            .join(" · ")}
        </p>
      )}
    </div>
  );
}

const timeWords = (n: number) =>
  n === 0 ? "No minutes more or less" : n > 0 ? `${minutes(n)} more work` : `${minutes(-n)} saved`;

const colourWords = (c: Change) =>
  (["recess", "field", "raised"] as const).map((p) => `${p} from ${c.before[p]} to ${c.after[p]}`).join(", ");
