import { useState } from "react";
import { Choice } from "../../kit/Field";
import { minutes } from "../../shared/words";
import type { Layer } from "./stack";

export type Progress = { laid: number; minutesSinceLast: number };
export const notBegun: Progress = { laid: 0, minutesSinceLast: 0 };

const agos = [0, 30, 120, 720, 1440, 4320, 10080];

/** For a piece half done: what is on it already, and for how long, so that only what is still to come is judged and mended. */
export function HalfDone(props: {
  layers: Layer[];
  progress: Progress;
  onChange: (progress: Progress) => void;
}) {
  const { layers, progress, onChange } = props;
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
        options={agos.map((m) => ({ value: String(m), text: m === 0 ? "just now" : minutes(m) }))}
        onChange={(v) => onChange({ ...progress, minutesSinceLast: Number(v) })}
      />
    </div>
  );
}
