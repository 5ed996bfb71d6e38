import { describe, expect, it } from "vitest";
import { alike, differing, potLetters, seenWords, signs, type Difference, type Piece } from "./cores";

const difference = (more: Partial<Difference> = {}): Difference => ({
  layerId: "a",
  fault: "other pot",
  difference: 3.14,
  verdict: "seen",
  words: "",
  todo: "",
  accepted: false,
  ...more,
});
const piece = (label: string, pot: string | null, differences: Difference[] = []) =>
  ({ id: label, label, cells: [{ layerId: "a", pot }], differences }) as unknown as Piece;

describe("cores side by side", () => {
  it("name the pots of a layer only where there are several, the most used first", () => {
    const pieces = [
      piece("W1", "tide two"),
      piece("W2", "tide one"),
      piece("W3", "tide one"),
      piece("W4", null),
    ];
    expect([...potLetters(pieces, "a")]).toEqual([
      ["tide one", "a"],
      ["tide two", "b"],
    ]);
    expect(potLetters(pieces.slice(1), "a").size).toBe(0);
    expect(potLetters(pieces, "b").size).toBe(0);
  });

  it("leave what may stay unmarked", () => {
    const p = piece("W1", null, [difference(), difference({ fault: "missing", accepted: true })]);
    expect(signs(p, "a")).toEqual(["≠"]);
    expect(signs(p, "b")).toEqual([]);
    expect(differing(p)).toBe(true);
    expect(differing(piece("W2", null, [difference({ accepted: true })]))).toBe(false);
  });

  it("tell the same of several pieces once, with the one that shows most, what may stay last", () => {
    const found = alike([
      piece("W1", null, [difference({ difference: 2, accepted: true })]),
      piece("W2", null, [difference({ difference: 1 }), difference({ fault: "missing", difference: 5 })]),
      piece("W3", null, [difference({ difference: 3 })]),
    ]);
    expect(found.map((f) => [f.pieces.map((p) => p.label).join(), f.d.fault, f.d.difference])).toEqual([
      ["W2", "missing", 5],
      ["W2,W3", "other pot", 3],
      ["W1", "other pot", 2],
    ]);
  });

  it("say whether it is seen", () => {
    expect(seenWords(difference())).toBe("ΔE 3.1, seen from the table");
    expect(seenWords(difference({ verdict: "just" }))).toBe("ΔE 3.1, just seen from the table");
    expect(seenWords(difference({ verdict: "lost" }))).toBe("ΔE 3.1, not seen from the table");
    expect(seenWords(difference({ fault: "too young" }))).toBe("no other colour");
  });
});
