import { describe, expect, it } from "vitest";
import { area, relief, reliefCells, type SurfaceOf } from "./relief";

const of = (
  kind: SurfaceOf["kind"],
  lengthMm: number,
  heightMm = 0,
  more: Partial<SurfaceOf> = {},
): SurfaceOf => ({
  kind,
  lengthMm,
  heightMm,
  rivetMm: null,
  across: false,
  ...more,
});
const surfaces: [string, SurfaceOf][] = [
  ["courses", of("courses", 8, 4)],
  ["boards", of("boards", 3)],
  ["boards upright", of("boards", 3, 0, { across: true })],
  ["slates", of("slates", 4.5, 3.6)],
  ["ribs", of("ribs", 1.4)],
  ["panels", of("panels", 20, 14, { rivetMm: 2 })],
  ["links", of("links", 2.7)],
  ["grain", of("grain", 0.5)],
  ["crackle", of("crackle", 3.6)],
  ["mesh", of("mesh", 1.1)],
];
const shares = [
  { raised: 0.2, field: 0.58, recess: 0.22 },
  { raised: 0.06, field: 0.9, recess: 0.04 },
  { raised: 0.4, field: 0.3, recess: 0.3 },
  { raised: 0, field: 1, recess: 0 },
];

describe.each(surfaces)("%s", (_, surface) => {
  it.each(shares)("draws raised, field and recess in their shares %o", (share) => {
    const tile = reliefCells(surface, share, 3)!;
    const whole = tile.width * tile.height;
    const sum = (list: Parameters<typeof area>[0][]) => list.reduce((s, c) => s + area(c), 0);
    const [gap, within] =
      surface.kind === "mesh" ? [share.raised, share.recess] : [share.recess, share.field];
    expect(sum(tile.cells) / whole).toBeCloseTo(1, 6);
    expect(sum(tile.outer) / whole).toBeCloseTo(1 - gap, 6);
    expect(sum(tile.inner) / whole).toBeCloseTo(within, 6);
  });

  it("keeps the face within its cell, away from the light", () => {
    const { outer, inner } = reliefCells(surface, shares[0]!, 3)!;
    for (const [i, cell] of inner.entries()) {
      const low = (p: (typeof inner)[number], axis: 0 | 1) => Math.min(...p.map((q) => q[axis]));
      expect(low(cell, 0)).toBeGreaterThan(low(outer[i]!, 0));
      expect(low(cell, 1)).toBeGreaterThan(low(outer[i]!, 1));
    }
  });

  it("repeats, at true size unless that is too fine to be made out", () => {
    const tile = relief(surface, shares[0]!, 3);
    expect(tile.over[1]!.d.match(/M/g)!.length % 2).toBe(0);
    const [near, far] = [reliefCells(surface, shares[0]!, 12)!, reliefCells(surface, shares[0]!, 24)!];
    expect(far.width / near.width).toBeCloseTo(2, 6);
    const fine = reliefCells(surface, shares[0]!, 0.01)!;
    expect(Math.sqrt((fine.width * fine.height) / fine.cells.length)).toBeGreaterThanOrEqual(4.99);
  });
});

it("a plain face is its field, without joints", () => {
  expect(relief(of("plain", 0), shares[0]!, 3)).toMatchObject({ ground: "field", over: [] });
});

it("panels have rivets along every edge, others none", () => {
  expect(
    relief(of("panels", 20, 14, { rivetMm: 2 }), shares[0]!, 3).rivets.match(/M/g)!.length,
  ).toBeGreaterThan(12);
  expect(relief(of("panels", 20, 14), shares[0]!, 3).rivets).toBe("");
});
