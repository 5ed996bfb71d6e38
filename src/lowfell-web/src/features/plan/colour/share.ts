import type { Layer } from "../stack";

/** Paint's share of what is in the pot, percent. */
export const paintShare = (d: Layer["dilution"]) => (d ? (100 * d.paint) / (d.paint + d.thinner) : 100);

/** Whole parts for a share in percent, reduced: 65 % is 13 : 7. */
export function partsOf(percent: number): { paint: number; thinner: number } | null {
  const paint = Math.round(percent);
  if (paint >= 100) return null;
  const divisor = gcd(paint, 100 - paint);
  return { paint: paint / divisor, thinner: (100 - paint) / divisor };
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
