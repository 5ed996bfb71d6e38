import type { Schema } from "../api/client";

type Technique = Schema["Technique"];

// One small mark a technique family, drawn as the hand moves. Pure strokes: they carry no colour of their own.
const marks: Record<string, string> = {
  spray: "M3 4h.01M8 3h.01M13 5h.01M5 8h.01M11 9h.01M3 12h.01M8 13h.01M13 12h.01",
  brush: "M2 4h8M6 8h8M2 12h8",
  dry: "M3 6l4-3M9 5l4-3M4 11l4-3M10 11l4-3",
  patch: "M3 3h5v4H3zM9 8h5v5H9z",
  wash: "M4 2l2 6 2-6M9 7l2 6 2-6",
  pin: "M2 5h4v6h4V5h4",
  thin: "M2 5h12M2 8h12M2 11h12",
  clear: "M2 3h12M2 13h12",
  chip: "M2 4l3 3 2-2 2 4 3-5 2 2M3 11l2 1",
  grain: "M3 5l1-2 2 1v2zM9 5l2-2 2 2zM5 12l2-3 2 2zM11 12l1-2 2 1z",
  crackle: "M2 3l4 3-1 4 3 3M6 6l5-1 3 3M8 13l3-3 3 3",
  lift: "M3 13l4-9 3 6 3-6",
  away: "M2 4h4l1 4 2-4h5M3 12h2M7 13h2M11 12h2",
  run: "M3 3v6M8 3v10M13 3v4",
  work: "M8 3v10M3 8h10",
};

const family: Partial<Record<Technique, keyof typeof marks>> = {
  prime: "spray",
  "directional light": "spray",
  "base coat": "brush",
  rim: "brush",
  overbrush: "dry",
  "dry brush": "dry",
  sponge: "patch",
  stipple: "patch",
  patch: "patch",
  "all-over wash": "wash",
  streak: "wash",
  "pin wash": "pin",
  filter: "thin",
  glaze: "thin",
  varnish: "clear",
  "seal texture": "clear",
  "crackle medium": "clear",
  "edge line": "chip",
  "painted chip": "chip",
  "chipping fluid": "chip",
  scratch: "chip",
  speckle: "grain",
  dust: "grain",
  pigment: "grain",
  "texture paste": "grain",
  render: "grain",
  "glue and scatter": "grain",
  rock: "grain",
  tuft: "grain",
  "crackle paste": "crackle",
  "clean up excess": "lift",
  "chip through": "away",
  "rub back": "away",
  marking: "brush",
  "run off": "run",
  stencil: "spray",
  "wet blend": "brush",
  hit: "chip",
};

export function Hatch({ technique }: { technique: Technique }) {
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" className="shrink-0 text-soft">
      <path
        d={marks[family[technique] ?? "work"]}
        fill="none"
        stroke="currentColor"
        strokeWidth="1.4"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
