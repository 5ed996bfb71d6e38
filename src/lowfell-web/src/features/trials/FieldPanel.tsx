import { useState } from "react";
import { api } from "../../api/client";
import { Button } from "../../kit/Button";
import { ColourField } from "../../kit/ColourField";
import { TextField } from "../../kit/Field";
import { Select } from "../../kit/Select";
import { Swatch } from "../../kit/Swatch";
import { useChange } from "../../shared/useChange";
import type { Cell, Position, Trial } from "./types";

const positions: readonly Position[] = ["field", "raised", "recess"];
const whole = /^#[0-9a-f]{6}$/i;

/** One field: what is predicted there, what was seen, and that it be what is laid. */
export function FieldPanel({ trial, cell, workshopId }: { trial: Trial; cell: Cell; workshopId: string }) {
  const [change, busy] = useChange(workshopId);
  const [position, setPosition] = useState<Position>("field");
  const [colour, setColour] = useState("");
  const [name, setName] = useState<string | null>(null);
  const path = { setId: trial.setId, trialId: trial.id! };
  const words = cell.levels.map((l, i) => trial.factors[i]!.levels[l]).join(", ");
  const look = (at: Position, observed: string | null) =>
    change(observed ? `Field ${cell.number}: ${observed} at the ${at}.` : "Taken away.", (headers) =>
      api.PUT("/api/trials/{setId}/{trialId}/looks", {
        params: { path },
        headers,
        body: { cell: cell.cell, position: at, observed },
      }),
    );
  const choose = (as: string | null) =>
    change(as ? `The treatment ${as} is made.` : `The treatment is as field ${cell.number} now.`, (headers) =>
      api.POST("/api/trials/{setId}/{trialId}/choose", {
        params: { path },
        headers,
        body: { cell: cell.cell, treatmentVersion: trial.treatmentVersion, name: as },
      }),
    );
  return (
    <section aria-label={`Field ${cell.number}`}>
      <h2 className="font-semibold">
        Field {cell.number}
        {cell.cell === trial.chosen && <span className="text-xs font-normal text-soft"> · chosen</span>}
      </h2>
      <p className="text-xs text-soft">
        {cell.held ? "The treatment as it was tried; at the edge, to be held beside the model." : words}
      </p>
      <div className="mt-2 flex gap-2">
        {(["raised", "field", "recess"] as const).map((p) => (
          <span key={p} className="text-xs text-soft">
            <Swatch colour={cell[p]} name="" className="h-8 w-16" />
            {p}
          </span>
        ))}
      </div>
      <p className="mt-1 text-xs text-soft">
        {cell.handDifference > 0 && `A thin and a heavy hand lie ${cell.handDifference.toFixed(1)} apart. `}
        {!cell.held &&
          `From the table it is ${cell.verdict === "lost" ? "the same as" : cell.verdict === "just" ? "hardly other than" : "plainly other than"} the treatment as it is (${cell.atTable.toFixed(1)}).`}
      </p>
      {cell.looks.length > 0 && (
        <ul aria-label="Seen" className="mt-2">
          {cell.looks.map((l) => (
            <li key={l.position} className="flex items-center gap-2 border-b border-line/60 py-1 text-xs">
              <Swatch colour={l.predicted} name="" className="h-5 w-8" />
              <Swatch colour={l.observed} name="" className="h-5 w-8" />
              <span className="min-w-0 flex-1">
                {l.position}: {l.words}, {l.difference.toFixed(1)}
                {l.believed !== null && l.believed < 0.3 && (
                  <span className="block text-amber">▲ does not fit the others, and hardly counts</span>
                )}
              </span>
              <Button
                disabled={busy}
                aria-label={`Take back the ${l.position}`}
                onClick={() => void look(l.position as Position, null)}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      <form
        className="mt-2 grid gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (whole.test(colour))
            void look(position, colour.toLowerCase()).then(
              (done) => done && setColour((since) => (since === colour ? "" : since)),
            );
        }}
      >
        <ColourField label="What it looks like" value={colour} onChange={setColour} />
        <div className="flex items-end gap-2">
          <Select
            label="Where"
            value={position}
            options={positions.map((p) => ({ value: p, text: p }))}
            onChange={setPosition}
          />
          <Button type="submit" tone="plain" className="h-[30px]" disabled={busy || !whole.test(colour)}>
            Keep it
          </Button>
        </div>
      </form>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          tone="plain"
          disabled={busy || (cell.held && cell.cell === trial.chosen)}
          onClick={() => void choose(null)}
        >
          {cell.held ? "Stay with it" : "Lay it so"}
        </Button>
        {cell.held ? null : name === null ? (
          <Button onClick={() => setName(`${trial.zone}, field ${cell.number}`)}>
            As a treatment of its own…
          </Button>
        ) : (
          <form
            className="grid w-full gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              if (name.trim())
                void choose(name.trim()).then(
                  (done) => done && setName((since) => (since === name ? null : since)),
                );
            }}
          >
            <TextField
              label="Name of the treatment"
              value={name}
              maxLength={120}
              onChange={(e) => setName(e.target.value)}
            />
            <span className="flex gap-2">
              <Button type="submit" disabled={busy || !name.trim()}>
                Make it
              </Button>
              <Button onClick={() => setName(null)}>Leave it</Button>
            </span>
          </form>
        )}
      </div>
    </section>
  );
}
