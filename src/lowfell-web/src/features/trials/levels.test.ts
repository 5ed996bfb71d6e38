import { describe, expect, it } from "vitest";
import { less, read, usual } from "./levels";
import type { Factor, Trial } from "./types";
import type { Layer } from "./types";

const layer = {
  id: "l",
  technique: "base coat",
  paint: [{ materialId: "a", parts: 1 }],
  dilution: { thinnerId: "w", paint: 1, thinner: 1 },
  coats: 2,
  strength: 1,
} as unknown as Layer;
const of = (kind: Parameters<typeof usual>[1], text: string, materials: string[] = []) =>
  read({ layerId: "l", kind, text, materials }, layer, "w");

describe("levels as they are written", () => {
  it("begin around what the layer is", () => {
    expect(usual(layer, "coats")).toBe("1, 2, 3");
    expect(usual(layer, "heaviness")).toBe("50 %, 100 %, 160 %");
    expect(usual(layer, "thinning")).toBe("neat, 1:1, 1:2");
  });

  it("become layers that differ in one thing", () => {
    const coats = of("coats", "1, 3");
    expect("factor" in coats && coats.factor.levels.map((l) => l!.coats)).toEqual([1, 3]);
    const heavy = of("heaviness", "50 %; 160");
    expect("factor" in heavy && heavy.factor.levels.map((l) => l!.strength)).toEqual([0.5, 1.6]);
    const thin = of("thinning", "neat, 1:3");
    expect("factor" in thin && thin.factor.levels.map((l) => l!.dilution?.thinner ?? 0)).toEqual([0, 3]);
    const paint = of("paint", "", ["a", "b"]);
    expect("factor" in paint && paint.factor.levels.map((l) => l!.paint[0]!.materialId)).toEqual(["a", "b"]);
    const whether = of("whether", "");
    expect("factor" in whether && whether.factor.levels.map((l: Layer | null) => l?.id ?? null)).toEqual([
      null,
      "l",
    ]);
  });

  it("say what is wrong with them", () => {
    expect(of("coats", "1, two")).toEqual({ fault: "Write whole numbers of coats, as 1, 2, 3." });
    expect(of("coats", "2")).toEqual({ fault: "Give it two levels at least." });
    expect(of("coats", "1,2,3,4,5,6")).toEqual({ fault: "At most 5 levels." });
    expect(of("heaviness", "0, 1")).toHaveProperty("fault");
    expect(of("thinning", "thin, thinner")).toHaveProperty("fault");
  });
});

describe("levels that nobody could tell apart", () => {
  const coats = (layerId: string, count: number) =>
    ({ layerId, levels: Array.from({ length: count }, (_, n) => ({ coats: n })) }) as unknown as Factor;
  const cells = (held: number[]) =>
    ({ cells: [{ held: true, levels: held }] }) as unknown as Pick<Trial, "cells">;
  const alike = (factor: number, first: number, second: number) => ({
    factor,
    first,
    second,
    difference: 0.4,
    words: "",
  });
  const left = (f: Factor[] | null) => f?.map((x) => x.levels.map((l) => l!.coats));

  it("lose the second, unless that is the one held beside the model", () => {
    expect(left(less([coats("a", 3), coats("b", 2)], cells([0, 0]), alike(0, 1, 2)))).toEqual([
      [0, 1],
      [0, 1],
    ]);
    expect(left(less([coats("a", 3)], cells([2]), alike(0, 1, 2)))).toEqual([[0, 2]]);
  });
  it("make a layer plain again of which two were all, and leave no trial without a layer", () => {
    expect(left(less([coats("a", 2), coats("b", 3)], cells([0, 0]), alike(0, 0, 1)))).toEqual([[0, 1, 2]]);
    expect(less([coats("a", 2)], cells([0]), alike(0, 0, 1))).toBeNull();
  });
});
