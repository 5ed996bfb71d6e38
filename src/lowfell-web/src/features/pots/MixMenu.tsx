import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { recipesQuery } from "../../api/queries";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice } from "../../kit/Field";
import { Menu } from "../../kit/Menu";
import { KeepRecipe } from "../../shared/KeepRecipe";
import { useChange } from "../../shared/useChange";
import type { Mix, Part } from "./pots";

/** What else can become of a mix: kept under a name, put onto a layer, begun from one that was kept. */
export function MixMenu(props: {
  workshopId: string;
  parts: Part[];
  title: string;
  mixes: Mix[];
  /** Where the jar is free, it can begin with a recipe. */
  onTake?: (parts: Part[]) => void;
}) {
  const { workshopId, parts, mixes, onTake } = props;
  const { data: recipes } = useQuery(recipesQuery(workshopId));
  const [open, setOpen] = useState<"keep" | "lay" | null>(null);
  const [change, busy] = useChange(workshopId);
  const filled = parts.length > 0;
  const close = () => setOpen(null);
  const begin = (r: Schema["RecipeCard"]) => ({
    text: r.name,
    run: () => onTake?.(r.parts.map(({ materialId, parts }) => ({ materialId, parts }))),
  });
  const groups = [
    ...(filled
      ? [
          {
            entries: [
              { text: "Keep it as a recipe…", run: () => setOpen("keep") },
              { text: "Put it onto a layer…", run: () => setOpen("lay") },
            ],
          },
        ]
      : []),
    ...(onTake && recipes && recipes.length > 0 ? [{ name: "Begin with", entries: recipes.map(begin) }] : []),
    ...(recipes && recipes.length > 0
      ? [
          {
            name: "Forget",
            entries: recipes.map((r) => ({
              text: `${r.name}, for good`,
              run: () =>
                void change(`${r.name} is no longer kept.`, (headers) =>
                  api.DELETE("/api/recipes/{id}", { headers, params: { path: { id: r.id } } }),
                ),
            })),
          },
        ]
      : []),
  ];
  if (groups.length === 0) return null;
  return (
    <span className="text-xs">
      <Menu label="Recipe" says={busy ? "Storing…" : "Recipe"} end groups={groups} />
      {open === "keep" && (
        <KeepRecipe workshopId={workshopId} parts={parts} begin={props.title} onClose={close} />
      )}
      {open === "lay" && <OntoLayer workshopId={workshopId} parts={parts} mixes={mixes} onClose={close} />}
    </span>
  );
}

/** Has a layer of the set laid with the mix from now on. */
function OntoLayer(props: { workshopId: string; parts: Part[]; mixes: Mix[]; onClose: () => void }) {
  const { workshopId, parts, mixes, onClose } = props;
  const places = mixes
    .flatMap((m) => m.places.map((p) => ({ ...p, mix: `${m.name}, ${m.dilution}` })))
    .sort((a, b) => a.zone.localeCompare(b.zone) || a.number - b.number);
  const [chosen, setChosen] = useState("");
  const [change, busy] = useChange(workshopId);
  const place = places.find((p) => `${p.zoneId} ${p.layerId}` === chosen);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Put it onto a layer"
      says="The layer is laid with this mix from now on, on every zone that has its treatment. What is done on pieces stays what it was."
    >
      <Choice
        label="Layer"
        value={chosen}
        placeholder="type a zone"
        options={places.map((p) => ({
          value: `${p.zoneId} ${p.layerId}`,
          text: `${p.number} ${p.technique}, now ${p.mix}`,
          group: p.zone,
        }))}
        onChange={setChosen}
      />
      <div className="mt-3 flex gap-2">
        <Button
          tone="go"
          disabled={!place || busy}
          onClick={() =>
            place &&
            void change(`${place.zone}: layer ${place.number} has the mix now.`, (headers) =>
              api.PUT("/api/zones/{zoneId}/mix", {
                headers,
                params: { path: { zoneId: place.zoneId } },
                body: { version: null, layerId: place.layerId, parts },
              }),
            ).then((done) => done && onClose())
          }
        >
          Put it on
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}
