import type { Schema } from "../../api/client";

export type Variation = Schema["VariationReading"];
export type Zone = Schema["VariationZone"];
export type Piece = Schema["VariationPiece"];
export type Draft = Schema["VariedDto"];

export type Habit = NonNullable<Schema["Habit"]>;

/** Where marks lie by themselves, in words. */
export const habits: readonly { value: Habit; text: string }[] = [
  { value: "anywhere", text: "anywhere on the face" },
  { value: "from ground", text: "from the ground up" },
  { value: "from above", text: "from the upper edge down" },
  { value: "at edges", text: "at the edges" },
  { value: "at joints", text: "along the joints" },
  { value: "under others", text: "under what is fixed to it" },
];

/** How much pieces differ, in a word. */
export const spreadWords = (spread: number) =>
  spread < 0.15
    ? "shy: nearly alike"
    : spread < 0.4
      ? "quiet"
      : spread < 0.65
        ? "lively"
        : spread < 0.85
          ? "strong"
          : "wild";
