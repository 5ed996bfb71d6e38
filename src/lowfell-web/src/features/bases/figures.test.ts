import { describe, expect, it } from "vitest";
import { blades, countWords, moved, stone, whereWords } from "./figures";
import type { Element } from "./types";

const rock: Element = { kind: "rock", x: 6, y: -2, radiusMm: 3, lengthMm: 0, turn: 0, half: false };
const numbers = (d: string) => d.match(/-?\d+\.\d+/g)!.map(Number);

describe("what lies on a base", () => {
  it("draws a stone within its radius, and a half to one side only", () => {
    const [xs, ys] = [0, 1].map((k) => numbers(stone(rock)).filter((_, i) => i % 2 === k)) as [
      number[],
      number[],
    ];
    expect(Math.max(...xs.map((x, i) => Math.hypot(x - 6, ys[i]! + 2)))).toBeLessThanOrEqual(3.01);
    const half = numbers(stone({ ...rock, half: true, turn: 90 })).filter((_, i) => i % 2 === 1);
    expect(Math.min(...half)).toBeGreaterThanOrEqual(-2.01);
    expect(stone(rock)).toBe(stone(rock));
  });
  it("draws blades that stay in the tuft", () => {
    const d = numbers(blades({ ...rock, kind: "tuft" }, 3));
    for (let i = 0; i < d.length; i += 2)
      expect(Math.hypot(d[i]! - 6, d[i + 1]! + 2)).toBeLessThanOrEqual(3.01);
  });
  it("says how many there are, and where one lies", () => {
    expect(countWords([rock, rock, { ...rock, kind: "reed" }])).toBe("2 rocks, 1 reed");
    expect(countWords([])).toBe("nothing on it");
    expect(whereWords(rock, [16, 16])).toBe("right");
    expect(whereWords({ ...rock, x: -9, y: 9 }, [16, 16])).toBe("lower left");
    expect(whereWords({ ...rock, x: 1, y: 1 }, [16, 16])).toBe("in the middle");
  });
  it("moves by tenths of a mm and changes nothing else", () => {
    expect(moved(rock, 0.5, -0.25)).toEqual({ ...rock, x: 6.5, y: -2.2 });
  });
});
