import { describe, expect, it } from "vitest";
import { begun, empty, turned, weighed } from "./byScale";

describe("a mix on the scale", () => {
  it("counts nothing before the empty pot was weighed", () => {
    expect(weighed(empty(2), 12).poured).toEqual([0, 0]);
  });

  it("counts to each part what was added while it was poured, and goes back to one", () => {
    let w = begun(empty(2), 12);
    w = weighed(w, 14.4);
    w = turned(w, 1, 14.4);
    w = weighed(w, 15.6);
    expect(w.poured.map((g) => Math.round(g * 100) / 100)).toEqual([2.4, 1.2]);
    w = weighed(turned(w, 0, 15.6), 15.66);
    expect(w.poured.map((g) => Math.round(g * 100) / 100)).toEqual([2.46, 1.2]);
  });

  it("does not count paint that was taken out below nothing", () => {
    expect(weighed(begun(empty(1), 12), 11).poured).toEqual([0]);
  });
});
