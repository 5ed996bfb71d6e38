import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { tied } from "./versions";

const version = (...ids: string[]): Schema["VersionEntry"] => ({
  number: 1,
  at: "",
  actor: "",
  name: null,
  words: "",
  current: false,
  strata: ids.map((id) => ({ technique: "base coat", paint: id, colour: "#000000" })),
  layers: ids.map(
    (id) => ({ id, technique: "base coat", paint: [], coats: id === "coated" ? 2 : 1 }) as never,
  ),
});

describe("two versions side by side", () => {
  it("ties the same layer, and shows what came and went where it lies", () => {
    const ties = tied(version("prime", "wash", "varnish"), version("prime", "varnish", "dust"));
    expect(ties.map((t) => [t.id, t.left?.at ?? null, t.right?.at ?? null, t.changed])).toEqual([
      ["prime", 0, 0, false],
      ["wash", 1, null, true],
      ["varnish", 2, 1, false],
      ["dust", null, 2, true],
    ]);
  });

  it("knows a layer that was changed from one that was not", () => {
    const then = version("prime");
    const now = { ...version("prime"), layers: [{ ...then.layers[0]!, coats: 3 }] };
    expect(tied(then, now)[0]!.changed).toBe(true);
    expect(tied(then, then)[0]!.changed).toBe(false);
  });
});
