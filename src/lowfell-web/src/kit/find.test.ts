import { describe, expect, it } from "vitest";
import { find, fit, plain } from "./find";

describe("comparing texts", () => {
  it("takes no notice of case, accents and blanks", () => {
    expect(plain("  Réed   GREEN ")).toBe("reed green");
  });
  it.each([
    ["Peat Seven", "Peat Seven", 0],
    ["Peat Seven", "peat", 1],
    ["Peat Seven", "seven", 2],
    ["Peat Seven", "seven peat", 2],
    ["Peat Seven", "eat", 3],
    ["Peat Seven", "moss", null],
    ["Peat Seven", "peat moss", null],
    ["Salt (fine)", "(f", 2],
    ["Salt White", "", 0],
  ])("%s for '%s' fits %s", (text, typed, rank) => {
    expect(fit(text, typed)).toBe(rank);
  });
});

describe("finding", () => {
  const names = ["Old Peat", "Peat Seven", "Peaty", "Moss", "Repeat"];
  it("puts what begins with it first and keeps the order of what fits alike", () => {
    expect(find(names, (n) => n, "peat")).toEqual(["Peat Seven", "Peaty", "Old Peat", "Repeat"]);
  });
  it("gives everything back for nothing typed, as a list of its own", () => {
    const all = find(names, (n) => n, " ");
    expect(all).toEqual(names);
    expect(all).not.toBe(names);
  });
  it("finds every name by its own words, whatever their order", () => {
    for (const name of names)
      expect(find(names, (n) => n, name.split(" ").reverse().join(" "))[0]).toBe(name);
  });
});
