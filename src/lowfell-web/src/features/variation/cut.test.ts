import { describe, expect, it } from "vitest";
import { cut } from "./cut";

const mark = (x: number, y: number, sizeMm: number) => ({ x, y, sizeMm, heaviness: 1, words: "" });

describe("where a face is cut", () => {
  it("shows the edge of the largest mark in the middle, and nothing without marks", () => {
    const { fromMm, at } = cut([mark(40, 20, 10)], 200, 24)!;
    expect(fromMm).toBe(45 - 12);
    expect(at).toEqual([[2, 12]]);
    expect(cut([], 200, 24)).toBeNull();
  });
  it("takes other marks only where the cut goes through them, and as wide as it goes through", () => {
    const through = cut([mark(40, 20, 10), mark(52, 23, 10), mark(50, 40, 8)], 200, 24)!.at;
    expect(through).toHaveLength(2);
    expect(through[1]![1] - through[1]![0]).toBeCloseTo(8, 6);
  });
  it("never leaves the face, and cuts off what lies beyond the picture", () => {
    expect(cut([mark(196, 5, 8)], 200, 24)!.fromMm).toBe(176);
    expect(cut([mark(4, 5, 8)], 200, 24)!.fromMm).toBe(0);
    expect(cut([mark(60, 5, 60)], 200, 24)!.at).toEqual([[0, 12]]);
  });
  it("holds on a face that is smaller than the picture", () => {
    expect(cut([mark(8, 5, 6)], 16, 24)!.fromMm).toBe(0);
  });
});
