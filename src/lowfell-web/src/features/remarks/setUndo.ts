import type { Schema } from "../../api/client";

type Stack = { treatmentId: string; version: number; layers: Schema["LayerDto"][] };
export type Done = { text: string; stacks: Stack[] };

// What was done to a set can be put back until the page is left.
const done = new Map<string, Done[]>();

export const doneTo = (setId: string): readonly Done[] => done.get(setId) ?? [];
export const remember = (setId: string, what: Done) => done.set(setId, [...doneTo(setId), what]);
export const forget = (setId: string) => done.set(setId, doneTo(setId).slice(0, -1));

/** What puts a stored remedy back: each treatment as it was, at the version it now has. */
export const wayBack = (text: string, changes: Schema["TreatmentChange"][]): Done => ({
  text,
  stacks: changes.map((c) => ({ treatmentId: c.treatmentId, version: c.version, layers: c.before })),
});
