import { useState } from "react";
import { api, Refused, take } from "../../api/client";
import { Dialog } from "../../kit/Dialog";
import { TextField } from "../../kit/Field";
import { labelsOf } from "../../shared/labels";
import type { Reading, Task } from "./types";

/** What to work on: of the session, or outside of it. */
export function ChooseDialog(props: {
  workshopId: string;
  tasks: readonly Task[];
  others: Reading["others"];
  onClose: () => void;
  onChoose: (task: Task) => void;
}) {
  const [typed, setTyped] = useState("");
  const [why, setWhy] = useState("");
  const words = typed.toLowerCase().split(/\s+/);
  const fits = (text: string) => words.every((w) => text.toLowerCase().includes(w));
  const of = (t: Task) => `${t.technique}, ${t.zone} on ${t.design}`;
  const other = async (zoneId: string, layerId: string) => {
    try {
      props.onChoose(
        await take(
          api.GET("/api/bench/{workshopId}/task", {
            params: { path: { workshopId: props.workshopId }, query: { zoneId, layerId } },
          }),
        ),
      );
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setWhy(error.message);
    }
  };
  const entry =
    "flex min-h-14 w-full items-center justify-between gap-3 border-b border-line px-1 text-left text-base hover:bg-paper";
  return (
    <Dialog open onClose={props.onClose} title="What to work on">
      <TextField label="Find" value={typed} onChange={(e) => setTyped(e.target.value)} fault={why} />
      <h3 className="mt-3 text-sm text-soft">In the session</h3>
      <ul>
        {props.tasks
          .filter((t) => fits(of(t)))
          .map((t) => (
            <li key={`${t.zoneId} ${t.layerId} ${t.pieces[0]!.id}`}>
              <button type="button" className={entry} onClick={() => props.onChoose(t)}>
                {of(t)}
                <span className="text-sm text-soft">{labelsOf(t.pieces.map((p) => p.label))}</span>
              </button>
            </li>
          ))}
      </ul>
      <h3 className="mt-3 text-sm text-soft">Outside of it: the next layer of each zone</h3>
      <ul>
        {props.others
          .filter((o) => fits(o.words))
          .map((o) => (
            <li key={`${o.zoneId} ${o.layerId}`}>
              <button type="button" className={entry} onClick={() => void other(o.zoneId, o.layerId)}>
                {o.words}
                <span className="text-sm text-soft">{o.pieces} to do</span>
              </button>
            </li>
          ))}
      </ul>
    </Dialog>
  );
}
