import type { Schema } from "../api/client";

export const handlings = ["display", "careful", "hard play"] as const satisfies readonly Schema["Handling"][];
export const sheens = ["matt", "eggshell", "satin", "gloss"] as const satisfies readonly Schema["Sheen"][];
export const substrates = [
  "printed plastic",
  "moulded plastic",
  "resin",
  "metal",
  "board",
  "foam",
  "plaster",
  "wood",
] as const satisfies readonly Schema["Substrate"][];
export const silhouettes = [
  "wall",
  "corner",
  "house",
  "cottage",
  "jetty",
  "boat",
  "base",
] as const satisfies readonly Schema["Silhouette"][];
export const surfaces = [
  "plain",
  "courses",
  "boards",
  "slates",
  "ribs",
  "panels",
  "links",
  "grain",
  "crackle",
  "mesh",
] as const satisfies readonly Schema["SurfaceKind"][];
export const reliefs = ["smooth", "light", "deep"] as const satisfies readonly Schema["Relief"][];
