import { describe, expect, it } from "vitest";
import { columnsIn, groupsOf, rowsOf } from "./tiles";

const many = (n: number) => Array.from({ length: n }, (_, i) => i);

describe("a long list drawn in rows", () => {
  it("draws every thing once and in order, however many columns there are", () => {
    for (const columns of [1, 2, 3, 5, 8])
      for (const sizes of [[0], [1], [7], [3, 0, 12], [400, 1, 99]]) {
        let next = 0;
        const groups = sizes.map((n, g) => ({ name: `g${g}`, items: many(n).map(() => next++) }));
        const rows = rowsOf(groups, columns);
        const drawn = rows.flatMap((r) => ("items" in r ? r.items : []));
        expect(drawn).toEqual(many(next));
        for (const row of rows)
          if ("items" in row) {
            expect(row.items.length).toBeLessThanOrEqual(columns);
            expect(row.first).toBe(row.items[0]);
          }
        expect(rows.filter((r) => "heading" in r).map((r) => "heading" in r && r.count)).toEqual(sizes);
      }
  });

  it("begins a new row with a new group", () => {
    const rows = rowsOf(
      [
        { name: "a", items: [1] },
        { name: "b", items: [2, 3, 4] },
      ],
      2,
    );
    expect(rows.map((r) => ("items" in r ? r.items : r.heading))).toEqual(["a", [1], "b", [2, 3], [4]]);
  });

  it("puts things under the names of their groups as they come up", () => {
    expect(groupsOf(["Fen", "Salt", "Fog"], (s) => s[0]!)).toEqual([
      { name: "F", items: ["Fen", "Fog"] },
      { name: "S", items: ["Salt"] },
    ]);
  });

  it("fits as many columns as there is room for, and never none", () => {
    expect(columnsIn(1000, 206, 10)).toBe(4);
    expect(columnsIn(854, 206, 10)).toBe(4);
    expect(columnsIn(853, 206, 10)).toBe(3);
    expect(columnsIn(0, 206, 10)).toBe(1);
  });
});
