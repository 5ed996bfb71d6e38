import { describe, expect, it } from "vitest";
import { leftOut, moved, putAbove, without } from "./moves";
import type { Layer } from "./stack";

const layer = (id: string, technique: Layer["technique"] = "base coat") => ({ id, technique }) as Layer;
const stack = [layer("a"), layer("b", "pin wash"), layer("c", "clean up excess"), layer("d")];
const ids = (layers: Layer[] | null) => layers?.map((l) => l.id).join("");

describe("what is done to a stack by hand", () => {
  it("puts a layer above the one in hand, or on top", () => {
    expect(ids(putAbove(stack, "b", layer("n")))).toBe("abncd");
    expect(ids(putAbove(stack, null, layer("n")))).toBe("abcdn");
    expect(ids(putAbove([], "b", layer("n")))).toBe("n");
  });

  it("takes a layer away and says which is in hand then", () => {
    expect(without(stack, "b")).toMatchObject({ near: "c" });
    expect(without(stack, "d")).toMatchObject({ near: "c" });
    expect(without([layer("a")], "a")).toEqual({ layers: [], near: null });
  });

  it("leaves a pin wash out with its clean-up, and nothing else with it", () => {
    expect(ids(leftOut(stack, "b"))).toBe("ad");
    expect(ids(leftOut(stack, "c"))).toBe("abd");
    expect(ids(leftOut(stack, "a"))).toBe("bcd");
  });

  it("moves a layer and back again, and not past either end", () => {
    for (const { id } of stack)
      for (const by of [-1, 1]) {
        const there = moved(stack, id, by);
        if (there) expect(moved(there, id, -by)).toEqual(stack);
      }
    expect(moved(stack, "a", -1)).toBeNull();
    expect(moved(stack, "d", 1)).toBeNull();
    expect(moved(stack, "x", 1)).toBeNull();
  });
});
