import { useState } from "react";
import { Choice } from "../../kit/Field";
import { minutes } from "../../shared/words";
import { labelsOf } from "../../shared/labels";
import type { SoFar } from "./soFar";
import type { Layer } from "./stack";

export type Progress = { laid: number; minutesSinceLast: number };
export const notBegun: Progress = { laid: 0, minutesSinceLast: 0 };

/** Minutes that can be chosen by hand. */
const agos = [0, 30, 120, 720, 1440, 4320, 10080];

/** For a piece half done: what is on it already, and for how long, so that only what is still to come is judged and mended. */
export function HalfDone(props: {
  layers: Layer[];
  soFar: readonly SoFar[];
  progress: Progress;
  onChange: (progress: Progress) => void;
}) {
  const { layers, soFar, progress, onChange } = props;
  const [open, setOpen] = useState(progress.laid > 0);
  if (!open && progress.laid === 0)
    return (
      <button
        type="button"
        className="mb-2 min-h-6 text-xs text-soft underline decoration-dotted underline-offset-2 hover:text-ink"
        onClick={() => setOpen(true)}
      >
        For a piece half done…
      </button>
    );
  return (
    <div className="mb-2 grid grid-cols-2 gap-2">
      {soFar.length > 0 && (
        <ul aria-label="As it really is" className="col-span-2 flex flex-wrap gap-x-3">
          {soFar.map((s) => (
            <li key={s.laid}>
              <button
                type="button"
                aria-pressed={progress.laid === s.laid}
                className="min-h-6 text-left text-xs text-soft underline decoration-dotted underline-offset-2 hover:text-ink aria-pressed:font-bold aria-pressed:text-ink"
                onClick={() => onChange({ laid: s.laid, minutesSinceLast: s.minutesSinceLast })}
              >
                as on {labelsOf(s.pieces)}: up to {s.laid}, {minutes(s.minutesSinceLast)} ago
              </button>
            </li>
          ))}
        </ul>
      )}
      <Choice
        label="On the piece already"
        value={String(progress.laid)}
        options={[
          { value: "0", text: "nothing yet" },
          ...layers.map((l, i) => ({ value: String(i + 1), text: `up to ${i + 1}, ${l.technique}` })),
        ]}
        onChange={(v) => {
          onChange({ ...progress, laid: Number(v) });
          if (v === "0") setOpen(false);
        }}
      />
      <Choice
        label="The last one, how long ago"
        value={String(progress.minutesSinceLast)}
        options={[...new Set([...agos, progress.minutesSinceLast])]
          .sort((a, b) => a - b)
          .map((m) => ({ value: String(m), text: m === 0 ? "just now" : minutes(m) }))}
        onChange={(v) => onChange({ ...progress, minutesSinceLast: Number(v) })}
      />
    </div>
  );
}
