import { describe, expect, it } from "vitest";
import type { Pen } from "../../shared/sheet";
import { drawTrial } from "./trueSize";
import type { Trial } from "./types";

type Drawn = { what: string; at: number[] };

function drawn(trial: Trial) {
  const all: Drawn[] = [];
  const words: string[] = [];
  let pages = 1;
  const put =
    (what: string) =>
    (...at: unknown[]) =>
      void all.push({ what, at: at.filter((n): n is number => typeof n === "number") });
  const pen: Pen = {
    page: { widthMm: 210, heightMm: 297, marginMm: 12 },
    next: () => pages++,
    rect: put("rect"),
    ellipse: put("ellipse"),
    line: put("line"),
    path: put("path"),
    within: (_, draw) => draw(),
    text: (t) => void words.push(t),
  };
  drawTrial(pen, trial);
  return { all, words, pages };
}

const cell = (n: number, left: number) => ({
  number: n,
  cell: String(n),
  levels: [n - 1],
  leftMm: left,
  topMm: 0,
  widthMm: 20,
  heightMm: 30,
  raised: "#806040",
  field: "#604020",
  recess: "#402010",
  held: n === 1,
});

const trial = {
  name: "How much ground?",
  zone: "Fen mud",
  design: "Mud-and-salt base",
  tile: { widthMm: 40, heightMm: 30, round: false },
  leftMm: 0,
  topMm: 0,
  factors: [{ words: "layer 4, base coat", levels: ["1 coat", "2 coats"] }],
  cells: [cell(1, 0), cell(2, 20)],
  steps: [
    { number: 1, words: "Layer 1, prime: over all of it.", masks: [], waitMinutes: 48 },
    { number: 2, words: "Layer 4: coat 2 on field 2.", masks: [{ upright: true, atMm: 20 }], waitMinutes: 0 },
  ],
} as unknown as Trial;

describe("the sheet of a trial", () => {
  it("draws tile and fields true to size, and the tape past both edges", () => {
    const { all } = drawn(trial);
    const rects = all.filter((d) => d.what === "rect");
    expect(rects[0]!.at.slice(2)).toEqual([40, 30]);
    const fields = rects.filter((r) => r.at[2] === 20);
    expect(fields.map((f) => f.at.slice(2))).toEqual([
      [20, 30],
      [20, 30],
    ]);
    expect(fields[1]!.at[0]! - fields[0]!.at[0]!).toBe(20);
    const [line] = all.filter((d) => d.what === "line");
    expect(line!.at[0]! - rects[0]!.at[0]!).toBe(20);
    expect(line!.at[3]! - line!.at[1]!).toBe(38);
  });
  it("numbers every field, and says the work in its order with its waits", () => {
    const { words } = drawn(trial);
    for (const n of ["1", "2"]) expect(words).toContain(n);
    expect(words.some((w) => w.startsWith("1. Layer 1, prime") && w.includes("about 48 min"))).toBe(true);
    expect(words.indexOf("In this order")).toBeLessThan(words.findIndex((w) => w.startsWith("2. ")));
    expect(words.some((w) => w === "1: 1 coat (as it is)")).toBe(true);
  });
  it("goes on to another page rather than off the paper", () => {
    const many = {
      ...trial,
      steps: Array.from({ length: 60 }, (_, i) => ({ ...trial.steps[0]!, number: i + 1 })),
    } as Trial;
    expect(drawn(many).pages).toBeGreaterThan(1);
    expect(drawn(trial).pages).toBe(1);
  });
  it("draws a round tile round", () => {
    const { all } = drawn({ ...trial, tile: { widthMm: 32, heightMm: 32, round: true } } as Trial);
    expect(all.find((d) => d.what === "ellipse")!.at.slice(2)).toEqual([16, 16]);
  });
});
