import { describe, expect, it } from "vitest";
import { evenings, factorWords, kindWords } from "./evenings";
import type { Entry } from "./types";

const entry = (session: string, more: Partial<Entry> = {}) =>
  ({ session, kind: "given", painter: "EW", minutes: 10, counts: true, takenBack: false, ...more }) as Entry;

describe("the log by evenings", () => {
  it("keeps the order, and adds up what counts and still stands", () => {
    const found = evenings([
      entry("2026-11-20"),
      entry("2026-11-20", { painter: "TB", minutes: 90, counts: false }),
      entry("2026-11-20", { minutes: 7, takenBack: true }),
      entry("2026-11-18", { minutes: null }),
    ]);
    expect(found.map((e) => [e.day, e.entries.length, e.minutes, e.painters.join()])).toEqual([
      ["2026-11-20", 3, 10, "EW,TB"],
      ["2026-11-18", 1, 0, "EW"],
    ]);
    expect(evenings([])).toEqual([]);
  });

  it("puts what came out otherwise into its evening, or makes one for it", () => {
    const marks = (session: string, piece: string) =>
      ({ session, piece, at: `${session}T20:00:00Z` }) as Parameters<typeof evenings>[1] extends
        readonly (infer M)[] | undefined
        ? M
        : never;
    const found = evenings(
      [entry("2026-11-20"), entry("2026-11-18")],
      [
        marks("2026-11-21", "W9"),
        marks("2026-11-20", "W2"),
        marks("2026-11-19", "W3"),
        marks("2026-11-01", "W1"),
      ],
    );
    expect(found.map((e) => [e.day, e.entries.length, e.marks.map((m) => m.piece).join()])).toEqual([
      ["2026-11-21", 0, "W9"],
      ["2026-11-20", 1, "W2"],
      ["2026-11-19", 0, "W3"],
      ["2026-11-18", 1, ""],
      ["2026-11-01", 0, "W1"],
    ]);
  });

  it("says kinds as a painter does", () => {
    expect([kindWords("given"), kindWords("mishap"), kindWords("made")]).toEqual(["laid", "mishap", "mixed"]);
  });

  it("says how far off the hands are", () => {
    expect([1.01, 1.35, 0.8].map(factorWords)).toEqual(["as reckoned", "35 % longer", "20 % shorter"]);
  });
});
