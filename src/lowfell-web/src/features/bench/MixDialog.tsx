import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { TextField } from "../../kit/Field";
import { NumberField } from "../../kit/NumberField";
import { Select } from "../../kit/Select";
import { ml } from "../../shared/words";
import { useChange } from "../../shared/useChange";
import { useParams } from "react-router";
import type { Task } from "./types";

const vessels: readonly Schema["Vessel"][] = ["jar", "wet palette", "palette"];

/** A pot as it was really mixed: drops as they were counted, from the shelf. */
export function MixDialog(props: {
  task: Task;
  mix: Schema["BenchMix"];
  onClose: () => void;
  onMixed: (potId: string) => void;
}) {
  const { task, mix } = props;
  const { workshopId = "" } = useParams();
  const [change, busy] = useChange(workshopId);
  const [id] = useState(() => ({ pot: crypto.randomUUID() as string, event: crypto.randomUUID() as string }));
  const [label, setLabel] = useState(
    `${mix.parts[0]!.name} ${new Date().toISOString().slice(5, 16).replace("T", " ")}`,
  );
  const [vessel, setVessel] = useState<Schema["Vessel"]>(vessels[0]!);
  const [drops, setDrops] = useState(mix.parts.map((p) => p.drops));
  const make = async () => {
    const made = await change(`${label} is mixed.`, (headers) =>
      api.POST("/api/pots/{setId}", {
        params: { path: { setId: task.setId } },
        headers,
        body: {
          id: id.pot,
          eventId: id.event,
          label,
          vessel,
          recipeKey: mix.key,
          amounts: mix.parts.flatMap((p, i) =>
            drops[i]! > 0 ? [{ materialId: p.materialId, drops: drops[i]!, ml: null }] : [],
          ),
          bottleHadMore: true,
        },
      }),
    );
    if (!made) return;
    props.onMixed(id.pot);
    props.onClose();
  };
  return (
    <Dialog
      open
      onClose={props.onClose}
      title="Pot mixed"
      says={`For ${task.technique}, ${task.zone}: about ${ml(mix.ml)}, ${mix.thinned}. Say how many drops there really were.`}
    >
      <div className="grid gap-3">
        {mix.parts.map((p, i) => (
          <NumberField
            key={p.materialId}
            label={p.brushLoads ? `${p.name}, brush-loads` : p.name}
            value={drops[i]!}
            unit={p.brushLoads ? "" : "drops"}
            least={0}
            most={2000}
            onSet={(n) => setDrops((all) => all.map((d, k) => (k === i ? Math.round(n) : d)))}
          />
        ))}
        <TextField label="Label" value={label} maxLength={80} onChange={(e) => setLabel(e.target.value)} />
        <Select
          label="Kept in"
          value={vessel}
          options={vessels.map((v) => ({ value: v, text: v }))}
          onChange={setVessel}
        />
      </div>
      <div className="mt-4 flex gap-2">
        <Button
          tone="go"
          className="min-h-14 px-4 text-base"
          disabled={busy || !label.trim() || drops.every((d) => d === 0)}
          onClick={() => void make()}
        >
          It is mixed
        </Button>
        <Button className="min-h-14 px-4 text-base" onClick={props.onClose}>
          Leave it
        </Button>
      </div>
    </Dialog>
  );
}
