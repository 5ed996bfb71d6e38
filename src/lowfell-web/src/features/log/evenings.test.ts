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
    expect(found.map((e) => [e.day, e.lines.length, e.minutes, e.painters.join()])).toEqual([
      ["2026-11-20", 3, 10, "EW,TB"],
      ["2026-11-18", 1, 0, "EW"],
    ]);
    expect(evenings([])).toEqual([]);
  });

  it("puts what came out otherwise where its time is, in its evening or one of its own", () => {
    const marks = (session: string, piece: string, clock = "20:00") =>
      ({ session, piece, at: `${session}T${clock}:00Z` }) as Parameters<
        typeof evenings
      >[1] & {} extends readonly (infer M)[]
        ? M
        : never;
    const laid = (session: string, clock: string) =>
      entry(session, { at: `${session}T${clock}:00Z`, painter: clock });
    const found = evenings(
      [laid("2026-11-20", "21:00"), laid("2026-11-20", "19:00"), laid("2026-11-18", "19:00")],
      [
        marks("2026-11-21", "W9"),
        marks("2026-11-20", "W2"),
        marks("2026-11-20", "W8", "18:00"),
        marks("2026-11-19", "W3"),
        marks("2026-11-01", "W1"),
      ],
    );
    expect(
      found.map((e) => `${e.day}: ${e.lines.map((l) => l.entry?.painter ?? l.marks?.piece).join()}`),
    ).toEqual([
      "2026-11-21: W9",
      "2026-11-20: 21:00,W2,19:00,W8",
      "2026-11-19: W3",
      "2026-11-18: 19:00",
      "2026-11-01: W1",
    ]);
  });

  it("says kinds as a painter does", () => {
    expect([kindWords("given"), kindWords("mishap"), kindWords("made")]).toEqual(["laid", "mishap", "mixed"]);
  });

  it("says how far off the hands are", () => {
    expect([1.01, 1.35, 0.8].map(factorWords)).toEqual(["as reckoned", "35 % longer", "20 % shorter"]);
  });
});
