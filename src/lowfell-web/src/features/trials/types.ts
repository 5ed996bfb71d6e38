import type { Schema } from "../../api/client";

export type Trial = Schema["TrialReading"];
export type Cell = Schema["TrialCellReading"];
export type Layer = Schema["LayerDto"];
export type Factor = Schema["TrialFactorDto"];
export type Position = NonNullable<Schema["Position"]>;
