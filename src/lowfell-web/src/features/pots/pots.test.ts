import { describe, expect, it } from "vitest";
import { inListOrder, lastsFor, life, nextLabel, span, stepFrom, typed, type Mix, type Pot } from "./pots";

describe("pots", () => {
  it("says time as people do", () => {
    expect([1, 25, 119, 120, 60 * 30, 60 * 24 * 3, 60 * 24 * 120].map(span)).toEqual([
      "1 min",
      "25 min",
      "119 min",
      "2 hours",
      "30 hours",
      "3 days",
      "4 months",
    ]);
  });
  it("tells a pot past its time", () => {
    const now = Date.parse("2026-11-25T12:00:00Z");
    expect(life({ goodUntil: "2026-11-25T12:20:00Z", vessel: "palette" }, now)).toEqual({
      says: "good for about 20 min (palette)",
      over: false,
    });
    expect(life({ goodUntil: "2026-11-25T09:00:00Z", vessel: "palette" }, now).over).toBe(true);
  });
  it("reads numbers with comma or point and nothing else", () => {
    expect(["2,5", " 3.25 ", "1.2 cl", "", "two", "1e400"].map((t) => typed(t))).toEqual([
      2.5,
      3.25,
      12,
      null,
      null,
      null,
    ]);
    expect(typed("20 drops", "drops")).toBe(20);
  });
  it("never offers a label that is taken", () => {
    expect(nextLabel("Peat Seven + Brick Clay", ["Peat Seven pot"])).toBe("Peat Seven pot 2");
  });
  it("counts the pieces a pot lasts for", () => {
    expect(lastsFor(20, { ml: 40, pieces: 8 })).toBe(4);
    expect(lastsFor(100, { ml: 40, pieces: 8 })).toBe(8);
    expect(lastsFor(4.9, { ml: 40, pieces: 8 })).toBe(0);
    expect(lastsFor(4.9, { ml: 0, pieces: 0 })).toBe(0);
  });
});

describe("the list by its keys", () => {
  const pots = [
    { id: "full", ml: 4 },
    { id: "empty", ml: 0 },
  ] as Pot[];
  const mixes = [
    { recipeKey: "neat", needsMixing: false },
    { recipeKey: "mixed", needsMixing: true },
  ] as Mix[];
  const order = inListOrder({ pots, mixes });
  it("has what stands there, top to bottom; empty pots are put away", () =>
    expect(order).toEqual([{ pot: "full" }, { mix: "mixed" }, { mix: "neat" }]));
  it.each([
    [{ pot: "full" }, 1, { mix: "mixed" }],
    [{ mix: "mixed" }, 1, { mix: "neat" }],
    [{ mix: "neat" }, 1, { mix: "neat" }],
    [{ mix: "mixed" }, -1, { pot: "full" }],
    [{ pot: "full" }, -1, { pot: "full" }],
    [{ pot: "empty" }, 1, { pot: "full" }],
    [{}, -1, { pot: "full" }],
  ])("from %j by %i", (at, by, to) => expect(stepFrom(order, at, by)).toEqual(to));
  it("of nothing leads nowhere", () => expect(stepFrom([], {}, 1)).toBeNull());
});
