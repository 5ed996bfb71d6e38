import { describe, expect, it } from "vitest";
import { jarSize, scaleStep, strata } from "./jar";

describe("a jar", () => {
  it("stacks strata without gaps, in true proportion, from the floor", () => {
    for (const mls of [[12, 8, 5], [0.3], [1, 0, 2, 0.05]]) {
      const drawn = strata(mls, 60, 240);
      let floor = 240;
      drawn.forEach((s, i) => {
        expect(s.y + s.height).toBeCloseTo(floor, 9);
        expect(s.height).toBeCloseTo((mls[i]! / 60) * 240, 9);
        floor = s.y;
      });
    }
  });
  it("is never drawn over its rim", () => {
    expect(strata([40, 40], 60, 100).at(-1)!.y).toBeCloseTo(0, 9);
    expect(strata([], 0, 100)).toEqual([]);
  });
  it("has a scale that can be read", () => {
    for (const ml of [0.4, 1, 7, 25, 61, 444]) {
      const step = scaleStep(ml);
      expect(ml / step).toBeLessThanOrEqual(9);
      expect(ml / step).toBeGreaterThanOrEqual(2);
    }
    expect(jarSize(41)).toBe(60);
  });
});
