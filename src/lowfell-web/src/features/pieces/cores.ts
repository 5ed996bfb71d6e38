import type { Schema } from "../../api/client";

export type Cores = Schema["CoresReading"];
export type Piece = Schema["CorePiece"];
export type Cell = Schema["CoreCell"];
export type Line = Schema["CoreLine"];
export type Difference = Schema["CoreDifferenceDto"];

/** Something about it is not as it should be, and nobody has said that it may be. */
export const differing = (p: Piece) => p.differences.some((d) => !d.accepted);

/** Pots of one layer by letters, the most used one a: what is from another is seen at a glance. */
export function potLetters(pieces: readonly Piece[], layerId: string): Map<string, string> {
  const counts = new Map<string, number>();
  for (const p of pieces) {
    const pot = p.cells.find((c) => c.layerId === layerId)?.pot;
    if (pot) counts.set(pot, (counts.get(pot) ?? 0) + 1);
  }
  const names = [...counts].sort((a, b) => b[1] - a[1]).map(([pot]) => pot);
  return new Map(names.length < 2 ? [] : names.map((pot, i) => [pot, String.fromCharCode(97 + (i % 26))]));
}

/** The same difference on several pieces: told once, with the one that shows most. */
export type Alike = { pieces: Piece[]; d: Difference };

export function alike(pieces: readonly Piece[]): Alike[] {
  const found = new Map<string, Alike>();
  for (const p of pieces)
    for (const d of p.differences) {
      const key = `${d.layerId} ${d.fault} ${d.words} ${d.todo} ${d.accepted} ${d.verdict}`;
      const known = found.get(key);
      if (!known) found.set(key, { pieces: [p], d });
      else {
        known.pieces.push(p);
        if (d.difference > known.d.difference) known.d = d;
      }
    }
  return [...found.values()].sort(
    (a, b) => Number(a.d.accepted) - Number(b.d.accepted) || b.d.difference - a.d.difference,
  );
}

const marks: Record<Difference["fault"], string> = {
  missing: "○",
  extra: "+",
  swapped: "↕",
  "other pot": "≠",
  "other dilution": "≈",
  "too young": "!",
  coats: "×",
  "older version": "‹",
};

/** The signs of a cell's differences; those that may stay are not among them. */
export const signs = (p: Piece, layerId: string) =>
  p.differences.filter((d) => d.layerId === layerId && !d.accepted).map((d) => marks[d.fault]);

/** "Not seen from the table", or how clearly. */
export const seenWords = (d: Difference) =>
  d.fault === "too young"
    ? "no other colour"
    : d.verdict === "lost"
      ? `ΔE ${d.difference.toFixed(1)}, not seen from the table`
      : `ΔE ${d.difference.toFixed(1)}, ${d.verdict === "just" ? "just seen" : "seen"} from the table`;
