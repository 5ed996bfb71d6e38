import { describe, expect, it } from "vitest";
import { decidesWords, handWords } from "./hand";

const range = { thin: "#8a7a60", heavy: "#6b5a45", difference: 9.1, decidesId: "w", share: 7.2 };
const layers = [
  { id: "p", technique: "prime" },
  { id: "w", technique: "all-over wash" },
];

describe("what a hand does to a colour", () => {
  it("names both ends and how far apart they are", () =>
    expect(handWords(range)).toBe("a thin hand ends #8a7a60, a heavy one #6b5a45, ΔE 9.1 apart"));
  it("says nothing of colours where nobody could tell them apart", () =>
    expect(handWords({ ...range, difference: 0.4 })).toBe("a thin and a heavy hand end alike"));
  it("names the layer that decides, with its share", () =>
    expect(decidesWords(range, layers)).toBe("layer 2, all-over wash, decides: 7 of 9"));
  it("names none where nothing differs, or where the layer is gone", () => {
    expect(decidesWords({ ...range, difference: 0.2 }, layers)).toBeNull();
    expect(decidesWords({ ...range, decidesId: "x" }, layers)).toBeNull();
    expect(decidesWords({ ...range, decidesId: null }, layers)).toBeNull();
  });
});
