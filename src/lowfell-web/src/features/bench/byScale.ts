/** A mix on the scale: what was poured of each part, and where the scale stood before the one that is poured now. */
export type Weighed = { part: number; zero: number | null; poured: readonly number[] };

export const empty = (parts: number): Weighed => ({ part: 0, zero: null, poured: Array(parts).fill(0) });

/** The empty pot stands on the scale: from here on it is the paint that weighs. */
export const begun = (w: Weighed, grams: number): Weighed => ({ ...w, zero: grams - w.poured[w.part]! });

/** What lies on the scale now, beyond what lay there before, is of the part that is poured. */
export const weighed = (w: Weighed, grams: number): Weighed =>
  w.zero === null
    ? w
    : { ...w, poured: w.poured.map((g, i) => (i === w.part ? Math.max(0, grams - w.zero!) : g)) };

/** Another part is poured next; what was poured of it before stays counted. */
export const turned = (w: Weighed, part: number, grams: number): Weighed =>
  part === w.part ? w : { ...w, part, zero: grams - w.poured[part]! };
