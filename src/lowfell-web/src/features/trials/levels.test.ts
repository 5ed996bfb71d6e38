import { describe, expect, it } from "vitest";
import { begun, less, lessTyped, read, spare, usual } from "./levels";
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

describe("what one begins to vary", () => {
  const layers = [
    { ...layer, id: "p", technique: "prime" },
    { ...layer, id: "b", technique: "base coat" },
    { ...layer, id: "w", technique: "all-over wash" },
    { ...layer, id: "v", technique: "varnish" },
  ] as Layer[];
  it("is what colours, from above, and what is asked of it most often", () => {
    const first = begun(layers, [])!;
    expect([first.layerId, first.kind]).toEqual(["w", "heaviness"]);
    const second = begun(layers, [first])!;
    expect([second.layerId, second.kind]).toEqual(["b", "coats"]);
    expect(begun(layers, [first, second])!.layerId).toBe("p");
    expect(begun([], [])).toBeNull();
  });
});

describe("levels that nobody could tell apart", () => {
  const alike = (factor: number, first: number, second: number) =>
    ({ factor, first, second, difference: 0.4, words: "" }) as Trial["alike"][number];
  const seen = (held: number[], all: Trial["alike"]) =>
    ({ cells: [{ held: true, levels: held }], alike: all }) as unknown as Pick<Trial, "alike" | "cells">;
  const coats = (layerId: string, count: number) =>
    ({ layerId, levels: Array.from({ length: count }, (_, n) => ({ coats: n })) }) as unknown as Factor;
  const left = (f: Factor[] | null) => f?.map((x) => x.levels.map((l) => l!.coats));
  const typed = (kind: "coats" | "whether" | "paint", text: string, materials: string[] = []) => ({
    layerId: "a",
    kind,
    text,
    materials,
  });

  it("are each spared once, but never the one held beside the model", () => {
    const all = [alike(0, 0, 1), alike(0, 0, 2), alike(0, 1, 2), alike(1, 0, 1)];
    expect(spare(seen([0, 1], all)).map((s) => [s.alike.factor, s.level])).toEqual([
      [0, 1],
      [0, 2],
      [1, 0],
    ]);
  });
  it("leave the others, make a layer plain again of which two were all, and leave no trial without a layer", () => {
    expect(left(less([coats("a", 3), coats("b", 2)], 0, 2))).toEqual([
      [0, 1],
      [0, 1],
    ]);
    expect(left(less([coats("a", 2), coats("b", 3)], 0, 1))).toEqual([[0, 1, 2]]);
    expect(less([coats("a", 2)], 0, 1)).toBeNull();
  });
  it("leave what was typed as it was typed", () => {
    expect(lessTyped(typed("coats", "1, 2; 3"), 1)?.text).toBe("1, 3");
    expect(lessTyped(typed("paint", "", ["x", "y", "z"]), 0)?.materials).toEqual(["y", "z"]);
    expect([lessTyped(typed("coats", "1, 2"), 1), lessTyped(typed("whether", ""), 0)]).toEqual([null, null]);
  });
});
