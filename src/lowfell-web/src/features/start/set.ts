import type { Schema } from "../../api/client";
import { figure, name, scale, z } from "../../kit/form/checks";
import { sayFigure } from "../../kit/form/figures";
import { pathOf } from "../../kit/form/useForm";
import { designSchema, draftOf, toBody } from "../../shared/designs/design";
import type { Preset } from "../../shared/designs/presets";

export const handlings = ["display", "careful", "hard play"] as const satisfies readonly Schema["Handling"][];
export const sheens = ["matt", "eggshell", "satin", "gloss"] as const satisfies readonly Schema["Sheen"][];

/** What may stand in the five steps. */
export const schema = z.object({
  workshop: name("The workshop's name", 120),
  name: name("The set's name", 120),
  scale,
  tableMetres: figure("m", { name: "The distance", least: 0.1, most: 10 }),
  handling: z.enum(handlings),
  targetSheen: z.enum(sheens),
  design: designSchema,
});

export type Typed = z.input<typeof schema>;
export type NewSet = z.output<typeof schema>;

/** What the steps begin with; a further set of a workshop is not called its first. */
type Workshop = Pick<Schema["WorkshopEntry"], "name" | "tableMetres" | "handling" | "targetSheen"> & {
  sets: unknown[];
};

export const begin = (workshop: Workshop | undefined, preset: Preset): Typed => ({
  workshop: workshop?.name ?? "My bench",
  name: workshop?.sets.length ? `Set ${workshop.sets.length + 1}` : "My first set",
  scale: "1:56",
  // A workshop says what a new set of it begins with.
  tableMetres: sayFigure(workshop?.tableMetres ?? 0.9, "m"),
  handling: workshop?.handling ?? "careful",
  targetSheen: workshop?.targetSheen ?? "matt",
  design: draftOf(preset),
});

/** All of it in one write: the workshop, where there is none yet, comes with the set or not at all. */
export const toNewSet = (s: NewSet, workshopId: string | null): Schema["NewSetIn"] => ({
  workshopId,
  workshop: workshopId ? null : s.workshop,
  name: s.name,
  scale: s.scale,
  tableMetres: s.tableMetres,
  handling: s.handling,
  targetSheen: s.targetSheen,
  design: toBody(s.design),
});

export const steps = ["The set", "Kind of piece", "The design", "Its zones", "What will be made"] as const;

/** The fields of each step. */
export const fieldsOf = [
  ["workshop", "name", "scale", "tableMetres", "handling", "targetSheen"],
  ["design.kind"],
  ["design.name", "design.pieces", "design.substrate"],
  ["design.zones"],
  [],
] as const;

/** The step that a field of the server stands in. */
export function stepOf(field: string): number {
  const path = pathOf(field);
  const at = fieldsOf.findIndex((fields) => fields.some((f) => path === f || path.startsWith(`${f}.`)));
  return at < 0 ? steps.length - 1 : at;
}
