import type { Element } from "./types";

const CORNERS = 8;

// The same place always gives the same stone and the same blades.
const wobble = (x: number, y: number, i: number) => {
  const s = Math.sin(x * 12.9898 + y * 78.233 + i * 37.719) * 43758.5453;
  return s - Math.floor(s);
};

const at = (x: number, y: number) => `${x.toFixed(2)} ${y.toFixed(2)}`;

/** The outline of a stone within its radius; of a half only what lies to the side of its turn. */
export function stone(e: Element): string {
  const points = e.half
    ? Array.from({ length: 7 }, (_, i) => ((e.turn - 90 + 30 * i) * Math.PI) / 180)
    : Array.from({ length: CORNERS }, (_, i) => (i / CORNERS) * 2 * Math.PI);
  const ends = e.half ? [0, 6] : [];
  return `M${points
    .map((a, i) => {
      const r = e.radiusMm * (ends.includes(i) ? 1 : 0.78 + 0.22 * wobble(e.x, e.y, i));
      return at(e.x + Math.cos(a) * r, e.y + Math.sin(a) * r);
    })
    .join("L")}Z`;
}

/** Blades from the middle of a tuft outwards: as many as it is large. */
export function blades(e: Element, seed: number): string {
  const count = e.kind === "reed" ? 9 : 14;
  return Array.from({ length: count }, (_, i) => {
    const a = ((i + 0.6 * wobble(seed, e.radiusMm, i)) / count) * 2 * Math.PI;
    const r = e.radiusMm * (0.6 + 0.4 * wobble(e.radiusMm, seed, i));
    return `M${at(e.x + Math.cos(a) * r * 0.1, e.y + Math.sin(a) * r * 0.1)}L${at(e.x + Math.cos(a) * r, e.y + Math.sin(a) * r)}`;
  }).join("");
}

/** What is on a base, in words: "2 rocks, 3 reeds". */
export function countWords(elements: readonly Element[]): string {
  const kinds = ["rock", "cork", "tuft", "reed", "plank"] as const;
  const words = kinds.flatMap((k) => {
    const n = elements.filter((e) => e.kind === k).length;
    return n === 0 ? [] : [k === "cork" ? `${n} of cork` : `${n} ${k}${n === 1 ? "" : "s"}`];
  });
  return words.length === 0 ? "nothing on it" : words.join(", ");
}

/** Where something lies, in words: "left, near the middle". */
export function whereWords(e: { x: number; y: number }, half: readonly [number, number]): string {
  const [u, v] = [e.x / half[0], e.y / half[1]];
  if (Math.hypot(u, v) < 0.2) return "in the middle";
  const side = Math.abs(u) < 0.2 ? "" : u < 0 ? "left" : "right";
  const height = Math.abs(v) < 0.2 ? "" : v < 0 ? "upper" : "lower";
  return [height, side].filter(Boolean).join(" ") || "near the middle";
}

const TO = 10;

/** Moved by so much, in tenths of a mm. */
export const moved = <T extends { x: number; y: number }>(e: T, dx: number, dy: number): T => ({
  ...e,
  x: Math.round((e.x + dx) * TO) / TO,
  y: Math.round((e.y + dy) * TO) / TO,
});
