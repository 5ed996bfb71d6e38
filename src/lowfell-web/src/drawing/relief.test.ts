import { describe, expect, it } from "vitest";
import { area, relief, reliefCells, type Texture } from "./relief";

const textures: Texture[] = ["bricks", "planks", "slates", "crust", "panels"];
const shares = [
  { raised: 0.2, field: 0.58, recess: 0.22 },
  { raised: 0.06, field: 0.9, recess: 0.04 },
  { raised: 0.4, field: 0.3, recess: 0.3 },
  { raised: 0, field: 1, recess: 0 },
];

describe.each(textures)("%s", (texture) => {
  it.each(shares)("draws raised, field and recess in their shares %o", (share) => {
    const tile = reliefCells(texture, share);
    const whole = tile.width * tile.height;
    const sum = (list: Parameters<typeof area>[0][]) => list.reduce((s, c) => s + area(c), 0);
    expect(sum(tile.cells)).toBeCloseTo(whole, 6);
    expect(sum(tile.field) / whole).toBeCloseTo(share.field, 6);
    expect((sum(tile.raised) - sum(tile.field)) / whole).toBeCloseTo(share.raised, 6);
  });

  it("keeps the field within its cell, away from the light", () => {
    const { raised, field } = reliefCells(texture, shares[0]!);
    for (const [i, cell] of field.entries()) {
      const low = (p: (typeof field)[number], axis: 0 | 1) => Math.min(...p.map((q) => q[axis]));
      expect(low(cell, 0)).toBeGreaterThan(low(raised[i]!, 0));
      expect(low(cell, 1)).toBeGreaterThan(low(raised[i]!, 1));
    }
  });

  it("repeats", () => {
    const tile = relief(texture, shares[0]!);
    expect(tile.field.match(/M/g)!.length % 2).toBe(0);
  });
});
