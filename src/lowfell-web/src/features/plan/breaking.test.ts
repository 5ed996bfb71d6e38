import { describe, expect, it } from "vitest";
import { breakable, breaksTo } from "./breaking";
import { blank } from "./blank";
import type { Layer } from "./stack";
import type { TechniqueInfo } from "./types";

const base = blank([{ technique: "base coat", usualTool: "brush", suits: [] } as unknown as TechniqueInfo]);
const layer = (id: string, technique: Layer["technique"], painted = true): Layer => ({
  ...base,
  id,
  technique,
  paint: painted ? [{ materialId: "m", parts: 1 }] : [],
});
const stack = [
  layer("a", "prime"),
  layer("b", "chipping fluid"),
  layer("c", "base coat"),
  layer("d", "mask", false),
  layer("e", "patch"),
];

describe("what a layer that takes away may break", () => {
  it("is what lies above the fluid, the nearest first", () => {
    const chip = layer("x", "chip through", false);
    expect(breakable([...stack, chip], chip)!.map((l) => l.id)).toEqual(["e", "c"]);
  });

  it("is everything below where there is no fluid, and for a rub", () => {
    const chip = layer("x", "chip through", false);
    const rub = layer("y", "rub back", false);
    expect(breakable([stack[0]!, stack[2]!, chip], chip)!.map((l) => l.id)).toEqual(["c", "a"]);
    expect(breakable([...stack, rub], rub)!.map((l) => l.id)).toEqual(["e", "c", "b", "a"]);
  });

  it("is nothing for a layer that adds, or one that is not in the stack any more", () => {
    expect(breakable(stack, stack[2]!)).toBeNull();
    expect(breakable([], layer("x", "rub back"))).toEqual([]);
  });

  it("is broken down to the fluid, or to what is named", () => {
    const chip = layer("x", "chip through", false);
    expect(breaksTo([...stack, chip], chip)).toBe(2);
    const named = { ...chip, downTo: "e" };
    expect(breaksTo([...stack, named], named)).toBe(4);
  });

  it("breaks nothing without a fluid, and rubs leave no gaps", () => {
    const chip = layer("x", "chip through", false);
    expect(breaksTo([stack[0]!, stack[2]!, chip], chip)).toBeUndefined();
    const rub = layer("y", "rub back", false);
    expect(breaksTo([...stack, rub], rub)).toBeUndefined();
  });
});
