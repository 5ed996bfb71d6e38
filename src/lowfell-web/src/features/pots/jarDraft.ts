import type { Schema } from "../../api/client";
import type { Draft, Mix } from "./pots";

/** What a mix can be for, and what it can be laid with. */
export const techniques = [
  "base coat",
  "prime",
  "directional light",
  "overbrush",
  "dry brush",
  "sponge",
  "stipple",
  "patch",
  "all-over wash",
  "pin wash",
  "filter",
  "glaze",
  "edge line",
  "painted chip",
  "streak",
  "speckle",
  "varnish",
  "seal texture",
  "texture paste",
  "render",
  "rim",
] as const satisfies readonly Schema["Technique"][];
export const tools = ["brush", "airbrush", "sponge", "spatula"] as const satisfies readonly Schema["Tool"][];

/** The jar that a mix of the plan asks for: as much as is still needed and not in pots. */
export const draftOf = (mix: Mix): Draft => ({
  parts: mix.parts.map((p) => ({ materialId: p.materialId, parts: Number(p.parts) })),
  totalMl: Math.max(0.5, Math.ceil((mix.ml - mix.inPotsMl) * 10) / 10),
  technique: mix.places[0]?.technique ?? "base coat",
  tool: mix.places[0]?.tool ?? "brush",
  needleMm: null,
  bar: null,
});

export const emptyJar: Draft = {
  parts: [],
  totalMl: 5,
  technique: "base coat",
  tool: "brush",
  needleMm: null,
  bar: null,
};

const isPart = (p: unknown) =>
  typeof p === "object" &&
  p !== null &&
  typeof (p as { materialId: unknown }).materialId === "string" &&
  typeof (p as { parts: unknown }).parts === "number";

/** Whether something that was kept is a jar. */
export const isDraft = (kept: unknown): kept is Draft =>
  typeof kept === "object" &&
  kept !== null &&
  typeof (kept as Draft).totalMl === "number" &&
  Array.isArray((kept as Draft).parts) &&
  (kept as Draft).parts.every(isPart);
