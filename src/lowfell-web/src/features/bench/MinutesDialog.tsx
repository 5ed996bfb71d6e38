import { useState } from "react";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { NumberField } from "../../kit/NumberField";
import { minutes } from "../../shared/words";
import { labelsOf } from "../../shared/labels";
import type { Piece, Task } from "./types";

/** A timer that ran so long that nobody knows what it says: asked, never guessed. */
export function MinutesDialog(props: {
  task: Task;
  pieces: Piece[];
  ran: number;
  onClose: () => void;
  onSaid: (minutes?: number) => void;
}) {
  const { task, pieces, ran } = props;
  const usual = task.minutesEach * pieces.length;
  const [took, setTook] = useState(Math.round(usual));
  return (
    <Dialog
      open
      bySelf
      onClose={props.onClose}
      title="Was the timer left running?"
      says={`It ran ${minutes(ran)} on ${labelsOf(pieces.map((p) => p.label))}; ${minutes(usual)} was the estimate. How long were hands on it?`}
    >
      <NumberField label="Minutes" value={took} unit="min" least={1} most={1440} onSet={setTook} />
      <div className="mt-4 flex flex-wrap gap-2">
        <Button tone="go" className="min-h-14 px-4 text-base" onClick={() => props.onSaid(took)}>
          It took {took} min
        </Button>
        <Button className="min-h-14 px-4 text-base" onClick={() => props.onSaid()}>
          Do not count it
        </Button>
      </div>
    </Dialog>
  );
}
