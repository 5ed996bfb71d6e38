import { describe, expect, it } from "vitest";
import { alike, apply, merge, rebase, settle, type Layer } from "./stack";

const layer = (id: string, change: Partial<Layer> = {}): Layer => ({
  id,
  technique: "base coat",
  paint: [{ materialId: "peat", parts: 1 }],
  dilution: null,
  coats: 1,
  region: "all",
  strength: 1,
  tool: "brush",
  drying: "air",
  waitMinutes: null,
  optional: false,
  note: "",
  ...change,
});
const ids = (stack: Layer[]) => stack.map((l) => l.id).join("");
const [a, b, c] = [layer("a"), layer("b"), layer("c")];

describe("applying a remedy", () => {
  it("inserts with an id of its own and moves what was there up", () => {
    const after = apply([a, b], [{ op: "insert", at: 1, to: null, layer: layer("x") }]);
    expect(after.map((l) => l.id)).toEqual(["a", expect.not.stringMatching(/^x$/), "b"]);
  });
  it("removes, moves and replaces by index, counted just before each edit", () => {
    expect(ids(apply([a, b, c], [{ op: "remove", at: 0, to: null, layer: null }]))).toBe("bc");
    expect(ids(apply([a, b, c], [{ op: "move", at: 0, to: 2, layer: null }]))).toBe("bca");
    expect(
      ids(
        apply(
          [a, b, c],
          [
            { op: "remove", at: 1, to: null, layer: null },
            { op: "move", at: 1, to: 0, layer: null },
          ],
        ),
      ),
    ).toBe("ca");
  });
  it("keeps the note of a layer it replaces", () => {
    const noted = layer("a", { note: "thin" });
    const [after] = apply([noted], [{ op: "replace", at: 0, to: null, layer: layer("a", { coats: 3 }) }]);
    expect(after).toMatchObject({ coats: 3, note: "thin" });
  });
  it("leaves the stack it was given alone", () => {
    const stack = [a, b];
    apply(stack, [{ op: "remove", at: 0, to: null, layer: null }]);
    expect(ids(stack)).toBe("ab");
  });
});

describe("bringing two versions together", () => {
  const none = new Map<string, "mine" | "theirs">();
  it("takes each change from the side that made it", () => {
    const merged = merge([a, b], [layer("a", { coats: 2 }), b], [a, layer("b", { coats: 3 })]);
    expect(merged.clashes).toEqual([]);
    expect(settle(merged, none).map((l) => l.coats)).toEqual([2, 3]);
  });
  it("calls what both changed differently a clash and loses neither", () => {
    const merged = merge([a], [layer("a", { coats: 2 })], [layer("a", { coats: 3 })]);
    expect(merged.clashes).toHaveLength(1);
    expect(settle(merged, new Map([["a", "theirs"]]))[0]!.coats).toBe(3);
    expect(settle(merged, none)[0]!.coats).toBe(2);
  });
  it("does not call the same change twice a clash", () => {
    expect(merge([a], [layer("a", { coats: 2 })], [layer("a", { coats: 2 })]).clashes).toEqual([]);
  });
  it("keeps layers added on either side and drops those removed on one", () => {
    expect(ids(settle(merge([a, b], [a, b, c], [b]), none))).toBe("bc");
  });
  it("sees a removal against a change as a clash", () => {
    const merged = merge([a], [], [layer("a", { coats: 2 })]);
    expect(merged.clashes).toHaveLength(1);
    expect(settle(merged, none)).toEqual([]);
    expect(settle(merged, new Map([["a", "theirs"]]))).toHaveLength(1);
  });
  it("follows the order of the side that reordered", () => {
    expect(ids(settle(merge([a, b, c], [a, b, c], [c, a, b]), none))).toBe("cab");
    expect(ids(settle(merge([a, b, c], [b, a, c], [a, b, c]), none))).toBe("bac");
  });
});

describe("a stack that another window has stored meanwhile", () => {
  const noted = layer("a", { note: "theirs" });
  it("is theirs with the own edits on top", () => {
    const next = rebase([a, b], [a, layer("b", { coats: 2 }), c], [noted, b])!;
    expect(ids(next)).toBe("abc");
    expect(next.map((l) => l.note + l.coats)).toEqual(["theirs1", "2", "1"]);
  });
  it("is just theirs when nothing was edited here", () => {
    expect(rebase([a, b], [a, b], [noted])).toEqual([noted]);
  });
  it("is for the painter to settle when both changed the same layer", () => {
    expect(rebase([a], [layer("a", { coats: 2 })], [noted])).toBeNull();
  });
  it("carries a step of undo over, so that it takes back only what was done here", () => {
    const before = rebase([a, layer("b", { coats: 2 })], [a, b], [noted, layer("b", { coats: 2 })])!;
    expect(before).toEqual([noted, b]);
  });
});

describe("a note", () => {
  it("changes nothing that is worked out", () => {
    expect(alike([a, b], [a, { ...b, note: "old rope" }])).toBe(true);
    expect(alike([a, b], [a, { ...b, coats: 2 }])).toBe(false);
    expect(alike([a, b], [b, a])).toBe(false);
  });
});
