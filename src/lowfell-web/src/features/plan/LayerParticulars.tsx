import { Choice } from "../../kit/Field";
import { Optional } from "./Optional";
import { Varied } from "./Varied";
import { capital, paintWords } from "./layerWords";
import { breakable } from "./breaking";
import type { Schema } from "../../api/client";
import type { Layer } from "./stack";
import type { ColumnProps } from "./column";

/** What only some layers have: marks with a width, details to count, a core to break down to, a region that fades. */
export function LayerParticulars(
  props: ColumnProps & {
    layer: Layer;
    set: (change: Partial<Layer>, field: string) => void;
    faultOf: (field: string) => string | undefined;
  },
) {
  const { layer, layers, set, faultOf } = props;
  const below = breakable(layers, layer);
  const chosen = layer.preparation ?? "none";
  const suitable = preparationsOf(layer, props.byId);
  return (
    <>
      {marks.has(layer.technique) && (
        <Optional
          key={`mark ${layer.markMm}`}
          label="Marks, wide"
          unit="mm"
          value={layer.markMm ?? null}
          most={200}
          placeholder="as usual"
          fault={faultOf("markMm")}
          onSet={(markMm) => set({ markMm: markMm === null ? null : Math.round(markMm * 100) / 100 }, "mark")}
        />
      )}
      {details.has(layer.technique) && (
        <Optional
          key={`details ${layer.details}`}
          label="On one piece"
          unit=""
          value={layer.details ?? null}
          most={1000}
          placeholder="by the area"
          fault={faultOf("details")}
          onSet={(n) => set({ details: n === null ? null : Math.max(1, Math.round(n)) }, "details")}
        />
      )}
      {below && (
        <Choice
          label={layer.technique === "rub back" ? "No deeper than" : "Breaks down to"}
          value={below.some((l) => l.id === layer.downTo) ? layer.downTo! : ""}
          options={[
            { value: "", text: layer.technique === "rub back" ? "as far as it goes" : "all above the fluid" },
            ...below.map((l) => ({
              value: l.id,
              text: `${layers.indexOf(l) + 1} ${capital(l.technique)}, ${paintWords(l, props.byId)}`,
            })),
          ]}
          onChange={(id) => set({ downTo: id === "" ? null : id }, "downTo")}
        />
      )}
      {(varying.has(layer.technique) || layer.varied) && (
        <Varied
          layerOf={`${props.sheet.treatmentId}/${layer.id}`}
          varied={layer.varied ?? null}
          onChange={(varied) => set({ varied }, "variation")}
        />
      )}
      {layer.region !== "all" && (
        <label className="flex min-h-6 items-center gap-1.5 self-end text-xs">
          <input
            type="checkbox"
            checked={layer.fades ?? false}
            onChange={(e) => set({ fades: e.target.checked }, "fades")}
          />
          Fades to nothing
        </label>
      )}
      {(suitable.length > 1 || chosen !== "none") && (
        <Choice
          label="Beforehand"
          value={chosen}
          options={suitable.includes(chosen) ? suitable : [...suitable, chosen]}
          onChange={(preparation) => set({ preparation }, "preparation")}
        />
      )}
    </>
  );
}

/** What can be done beforehand to what a layer is mostly of. */
function preparationsOf(layer: Layer, byId: ColumnProps["byId"]): readonly Schema["Preparation"][] {
  const most = [...layer.paint].sort((a, b) => Number(b.parts) - Number(a.parts))[0];
  return (most && byId.get(most.materialId)?.preparations) ?? ["none"];
}

/** Techniques that leave marks one could measure. */
const marks = new Set<Layer["technique"]>([
  "streak",
  "painted chip",
  "chip through",
  "scratch",
  "speckle",
  "patch",
  "edge line",
  "stipple",
  "stencil",
  "marking",
  "run off",
  "hit",
]);

/** Techniques whose marks a plan can lay differently on every piece. */
const varying = new Set<Layer["technique"]>([
  "patch",
  "sponge",
  "stipple",
  "speckle",
  "streak",
  "painted chip",
  "chip through",
  "scratch",
  "stencil",
  "dust",
  "pigment",
]);

/** Techniques whose work is done one by one. */
const details = new Set<Layer["technique"]>(["marking", "run off", "hit", "tuft", "rock", "decal"]);
