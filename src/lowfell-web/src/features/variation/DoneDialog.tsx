import { useState } from "react";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { TextField } from "../../kit/Field";
import { readFigure } from "../../kit/form/figures";
import { PieceSection } from "./PieceSection";
import type { Piece, Zone } from "./types";

const MOST_MARKS = 50;

/** What came out otherwise than the plan says. */
export function DoneDialog(props: {
  piece: Piece;
  zone: Zone;
  layerId: string;
  busy: boolean;
  onClose: () => void;
  onStore: (done: { marks: number | null; meanMm: number | null; note: string }) => void;
}) {
  const { piece } = props;
  const [marks, setMarks] = useState(String(piece.done?.marks ?? piece.marks.length));
  const [size, setSize] = useState(piece.done?.meanMm ? `${piece.done.meanMm} mm` : "");
  const [note, setNote] = useState(piece.done?.note ?? "");
  const [fault, setFault] = useState<{ marks?: string; size?: string }>({});
  const store = () => {
    const [n, mm] = [readFigure(marks, ""), readFigure(size, "mm")];
    const count = n && "value" in n ? n.value : null;
    const mean = mm && "value" in mm ? mm.value : null;
    const wrong = {
      ...(count === null || !Number.isInteger(count) || count < 0 || count > MOST_MARKS
        ? { marks: `A whole number up to ${MOST_MARKS}.` }
        : {}),
      ...((mm && "fault" in mm) || (mean !== null && (mean < 0.1 || mean > 200))
        ? { size: "A size from 0.1 to 200 mm, or nothing." }
        : {}),
    };
    setFault(wrong);
    if (Object.keys(wrong).length === 0) props.onStore({ marks: count, meanMm: mean, note: note.trim() });
  };
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`${piece.label}, as it was laid`}
      says={`Planned: ${piece.words}`}
    >
      <PieceSection zone={props.zone} piece={piece} layerId={props.layerId} />
      <form
        noValidate
        className="mt-3 grid grid-cols-2 gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          store();
        }}
      >
        <TextField
          label="How many marks"
          value={marks}
          onChange={(e) => setMarks(e.target.value)}
          fault={fault.marks}
        />
        <TextField
          label="Their size, where measured"
          placeholder="as planned"
          value={size}
          onChange={(e) => setSize(e.target.value)}
          fault={fault.size}
        />
        <div className="col-span-2">
          <TextField label="Where they are" value={note} onChange={(e) => setNote(e.target.value)} />
        </div>
        <div className="col-span-2 flex flex-wrap gap-2">
          <Button type="submit" tone="go" disabled={props.busy}>
            Store it
          </Button>
          {piece.done && (
            <Button
              disabled={props.busy}
              onClick={() => props.onStore({ marks: null, meanMm: null, note: "" })}
            >
              It is as planned after all
            </Button>
          )}
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
