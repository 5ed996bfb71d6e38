import type { Schema } from "../../api/client";
import { labelsOf } from "../../shared/labels";
import type { Progress } from "./HalfDone";
import type { SoFar } from "./soFar";

/** Of a remark about something that is on pieces already: on which, and what can still be done for them. */
export function LaidAlready(props: {
  finding: Schema["FindingDto"];
  /** The layers it speaks of, counted from 1. */
  numbers: readonly number[];
  soFar: readonly SoFar[];
  laid: number;
  onProgress: (progress: Progress) => void;
}) {
  const { finding, numbers, laid } = props;
  const lowest = Math.min(...numbers);
  if (laid > 0)
    return laid >= lowest && finding.remedies.length === 0 ? (
      <p className="mt-1 text-soft">
        It is on the piece, and nothing that is still to come mends it: live with it, or take it off and begin
        again from layer {lowest}.
      </p>
    ) : null;
  const have = props.soFar.filter((s) => s.laid >= lowest);
  if (have.length === 0) return null;
  return (
    <ul className="mt-1">
      {have.map((s) => (
        <li key={s.laid}>
          <button
            type="button"
            className="min-h-6 text-left text-soft underline decoration-dotted underline-offset-2 hover:text-ink"
            onClick={() => props.onProgress({ laid: s.laid, minutesSinceLast: s.minutesSinceLast })}
          >
            Laid already on {labelsOf(s.pieces)}: what can still be done for{" "}
            {s.pieces.length > 1 ? "them" : "it"}
          </button>
        </li>
      ))}
    </ul>
  );
}
