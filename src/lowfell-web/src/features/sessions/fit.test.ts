import { describe, expect, it } from "vitest";
import { curve, HEIGHT, pointFor, WIDTH } from "./fit";

const points = [
  { minutes: 600, difference: 0 },
  { minutes: 500, difference: 0.2 },
  { minutes: 300, difference: 2 },
];

describe("fit to the hours", () => {
  it("takes the first point that is short enough, and the last where none is", () => {
    expect([700, 600, 599, 400, 100].map((m) => pointFor(points, m))).toEqual([0, 0, 1, 2, 2]);
  });
  it("is drawn from all of the work to the least of it, falling as more is lost", () => {
    const places = points.map((_, i) => curve(points, i).dot);
    expect(places.map((p) => p.x)).toEqual([...places.map((p) => p.x)].sort((a, b) => a - b));
    expect(places.map((p) => p.y)).toEqual([...places.map((p) => p.y)].sort((a, b) => a - b));
    expect(places.every((p) => p.x >= 0 && p.x <= WIDTH && p.y >= 0 && p.y <= HEIGHT)).toBe(true);
    expect(curve(points, 0).path).toMatch(/^M[\d.]+ [\d.]+L[\d.]+ [\d.]+L[\d.]+ [\d.]+$/);
    expect(curve([points[0]!], 0).dot.x).toBeGreaterThan(0);
  });
});
