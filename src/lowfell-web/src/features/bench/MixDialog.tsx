import { useState } from "react";
import type { Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { TextField } from "../../kit/Field";
import { NumberField } from "../../kit/NumberField";
import { Select } from "../../kit/Select";
import { ml } from "../../shared/words";
import { ByScale, type Measured } from "./ByScale";
import type { Task, Told } from "./types";

const vessels: readonly Schema["Vessel"][] = ["jar", "wet palette", "palette"];

/** A pot as it was really mixed, or topped up: drops as they were counted, from the shelf. */
export function MixDialog(props: {
  workshopId: string;
  task: Task;
  mix: Schema["BenchMix"];
  /** The pot that is in use for it, when there is one. */
  pot: Schema["BenchPot"] | null;
  onClose: () => void;
  onTell: (told: Told, words: string) => void;
}) {
  const { task, mix, pot } = props;
  const [id] = useState(() => crypto.randomUUID() as string);
  const [more, setMore] = useState(false);
  const [label, setLabel] = useState(
    `${mix.parts[0]!.name} ${new Date().toISOString().slice(5, 16).replace("T", " ")}`,
  );
  const [vessel, setVessel] = useState<Schema["Vessel"]>(vessels[0]!);
  const [drops, setDrops] = useState(mix.parts.map((p) => p.drops));
  // By the scale where one stands there: as weighed until a figure is put in its place.
  const [measured, setMeasured] = useState<Measured[] | null>(null);
  const into = more ? pot : null;
  const tell = () => {
    const amounts = measured
      ? measured.map((m) => ({ materialId: m.materialId, drops: null, ml: m.ml }))
      : mix.parts.flatMap((p, i) =>
          drops[i]! > 0 ? [{ materialId: p.materialId, drops: drops[i]!, ml: null }] : [],
        );
    if (into)
      props.onTell(
        { kind: "topped up", zoneId: task.zoneId, potId: into.id, amounts },
        `${into.label} is topped up.`,
      );
    else
      props.onTell(
        {
          kind: "made",
          zoneId: task.zoneId,
          potId: id,
          label: label.trim(),
          vessel,
          recipeKey: mix.key,
          amounts,
        },
        `${label.trim()} is mixed.`,
      );
  };
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={into ? "Topped up" : "Pot mixed"}
      says={`For ${task.technique}, ${task.zone}: about ${ml(mix.ml)}, ${mix.thinned}. Say how many drops there really were.`}
    >
      <div className="grid gap-3">
        {pot && (
          <div role="radiogroup" aria-label="Into what" className="grid gap-1">
            {[
              { words: "A new pot", is: false },
              { words: `More into ${pot.label}`, is: true },
            ].map(({ words, is }) => (
              <label key={words} className="flex min-h-10 items-center gap-2 text-base">
                <input type="radio" name="into" checked={more === is} onChange={() => setMore(is)} />
                {words}
              </label>
            ))}
          </div>
        )}
        {mix.parts.length > 1 && (
          <ByScale
            workshopId={props.workshopId}
            mix={mix}
            onMeasured={(all) => {
              setMeasured(all);
              setDrops(all.map((m) => m.drops));
            }}
          />
        )}
        {measured && (
          <p role="status" className="text-sm text-soft">
            As weighed: {measured.map((m) => ml(m.ml)).join(" + ")}.
          </p>
        )}
        {mix.parts.map((p, i) => (
          <NumberField
            key={p.materialId}
            label={p.brushLoads ? `${p.name}, brush-loads` : p.name}
            value={drops[i]!}
            unit={p.brushLoads ? "" : "drops"}
            least={0}
            most={2000}
            onSet={(n) => {
              setMeasured(null);
              setDrops((all) => all.map((d, k) => (k === i ? Math.round(n) : d)));
            }}
          />
        ))}
        {!into && (
          <>
            <TextField
              label="Label"
              value={label}
              maxLength={80}
              onChange={(e) => setLabel(e.target.value)}
            />
            <Select
              label="Kept in"
              value={vessel}
              options={vessels.map((v) => ({ value: v, text: v }))}
              onChange={setVessel}
            />
          </>
        )}
      </div>
      <div className="mt-4 flex gap-2">
        <Button
          tone="go"
          className="min-h-14 px-4 text-base"
          disabled={(!into && !label.trim()) || drops.every((d) => d === 0)}
          onClick={tell}
        >
          {into ? "It is topped up" : "It is mixed"}
        </Button>
        <Button className="min-h-14 px-4 text-base" onClick={props.onClose}>
          Leave it
        </Button>
      </div>
    </Dialog>
  );
}
