import type { Schema } from "../../api/client";

export type Reading = Schema["BenchReading"];
export type Kind = NonNullable<Schema["BenchEventIn"]["kind"]>;

/** Something that happened here, on its way to the server; the clock is this device's own. */
export type BenchEvent = {
  id: string;
  number: number;
  kind: Kind;
  toldAt: string;
  /** What else is known of this device's clock. */
  epoch?: string;
  tick?: number;
  offsetMs?: number;
  aheadMs?: number;
  zoneId?: string;
  layerId?: string;
  /** The layer as it was shown here. */
  seenId?: string;
  /** Where else it was done, of the same layer and on the same pieces. */
  also?: { zoneId: string; layerId: string }[];
  /** How many coats were laid; all that were left where nobody counted. */
  coats?: number;
  pieceIds?: string[];
  potId?: string;
  ml?: number;
  note?: string;
  savedBy?: string;
  undoesId?: string;
  minutes?: number;
  label?: string;
  vessel?: Schema["Vessel"];
  recipeKey?: string;
  /** Drops as they were counted, or ml as they were weighed. */
  amounts?: { materialId: string; drops: number | null; ml: number | null }[];
};

/** The same before it has its number. */
export type Told = Omit<BenchEvent, "id" | "number" | "toldAt" | "epoch" | "tick" | "offsetMs" | "aheadMs">;
