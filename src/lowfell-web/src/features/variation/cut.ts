import type { Piece } from "./types";

/** Px of a section for a mm along the surface: as everywhere a section is drawn. */
export const PX_PER_MM = 24.5;

/**
 * Where a face is cut to show its largest mark: level with its middle, so wide, with the edge of the mark in the middle of the picture. At is where
 * marks lie along the cut, mm from its left; null without marks.
 */
export function cut(marks: Piece["marks"], faceMm: number, wideMm: number) {
  const [largest] = marks;
  if (!largest) return null;
  // The edge that has more of the face beyond it.
  const edge = largest.x < faceMm / 2 ? largest.x + largest.sizeMm / 2 : largest.x - largest.sizeMm / 2;
  const fromMm = Math.max(0, Math.min(edge - wideMm / 2, faceMm - wideMm));
  const at = marks.flatMap((m) => {
    const off = Math.abs(m.y - largest.y);
    const r = m.sizeMm / 2;
    if (off >= r) return [];
    const half = Math.sqrt(r * r - off * off);
    const [a, b] = [m.x - half - fromMm, m.x + half - fromMm];
    return b <= 0 || a >= wideMm ? [] : [[Math.max(0, a), Math.min(wideMm, b)] as const];
  });
  return { fromMm, at };
}
