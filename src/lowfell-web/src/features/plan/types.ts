import type { Schema } from "../../api/client";

// What the parts of the plan speak of, by short names.
export type Sheet = Schema["ZoneSheet"];
export type Material = Schema["MaterialCard"];
export type TechniqueInfo = Schema["TechniqueDto"];

/** What is looked at beside the stack. */
export const tabs = ["remarks", "colour", "sight"] as const;
export type Tab = (typeof tabs)[number];
