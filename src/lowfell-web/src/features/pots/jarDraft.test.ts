import { describe, expect, it } from "vitest";
import { draftOf, emptyJar, isDraft } from "./jarDraft";
import type { Mix } from "./pots";

const mix = (change: Partial<Mix> = {}) =>
  ({
    parts: [
      { materialId: "p", parts: "2" },
      { materialId: "b", parts: "0.5" },
    ],
    ml: 12.34,
    inPotsMl: 2,
    places: [{ technique: "filter", tool: "airbrush" }],
    ...change,
  }) as unknown as Mix;

describe("the jar that a mix asks for", () => {
  it("holds what is needed and not in pots yet, in its parts", () =>
    expect(draftOf(mix())).toEqual({
      parts: [
        { materialId: "p", parts: 2 },
        { materialId: "b", parts: 0.5 },
      ],
      totalMl: 10.4,
      technique: "filter",
      tool: "airbrush",
      needleMm: null,
      bar: null,
    }));
  it.each([
    ["all in pots", { inPotsMl: 12.34 }],
    ["more in pots than is needed", { inPotsMl: 20 }],
  ])("is a small one where there is %s", (_, change) => expect(draftOf(mix(change)).totalMl).toBe(0.5));
  it("is for a base coat by brush where no layer says otherwise", () =>
    expect(draftOf(mix({ places: [] }))).toMatchObject({ technique: "base coat", tool: "brush" }));
});

describe("what was kept of a jar", () => {
  it.each([
    ["an empty jar", emptyJar, true],
    ["a mix", draftOf(mix()), true],
    ["nothing", null, false],
    ["a word", "jar", false],
    ["a jar without an amount", { parts: [] }, false],
    ["a jar of words", { totalMl: 1, parts: ["p"] }, false],
    ["parts that are no numbers", { totalMl: 1, parts: [{ materialId: "p", parts: "2" }] }, false],
    ["parts of nothing", { totalMl: 1, parts: [{ parts: 2 }] }, false],
    ["parts that are not there", { totalMl: 1, parts: [null] }, false],
  ])("%s", (_, what, is) => expect(isDraft(what)).toBe(is));
});
