import { describe, expect, it } from "vitest";
import { clock, day, drying, into, longest, nights, nightWords, pieceWords, type Session } from "./evenings";

const session = (start: string, end: string, operations: Partial<Session["operations"][number]>[] = []) =>
  ({ start, end, handsOnMinutes: 0, operations }) as Session;

const tuesday = session("2026-11-24T19:30:00+00:00", "2026-11-24T22:00:00+00:00");
const saturday = session("2026-11-28T10:00:00+00:00", "2026-11-28T13:00:00+00:00");

describe("evenings", () => {
  it("are as wide as the longest of them", () => {
    expect(into(tuesday, "2026-11-24T20:00:00+00:00")).toBe(30);
    expect(longest([tuesday, saturday])).toBe(180);
  });
  it("have nights between them", () => {
    expect(nightWords(nights(tuesday, saturday))).toBe("4 nights");
    expect(nightWords(nights(saturday, saturday))).toBe("the same day");
    expect(nightWords(1)).toBe("one night");
  });
  it("tell the time on the workshop's wall, whatever clock the page has", () => {
    expect([clock("2026-07-01T19:30:00+01:00"), day("2026-07-01T23:30:00+01:00")]).toEqual([
      "19:30",
      "Wed 1 Jul",
    ]);
  });
  it("name pieces as a painter does", () => {
    expect(pieceWords({ pieces: ["W1"], ofPieces: 1 })).toBe("W1");
    expect(pieceWords({ pieces: ["W1", "W2", "W3"], ofPieces: 3 })).toBe("all 3");
    expect(pieceWords({ pieces: ["W1", "W2"], ofPieces: 8 })).toBe("W1, W2");
    expect(pieceWords({ pieces: ["W1", "W2", "W3"], ofPieces: 8 })).toBe("W1 to W3, 3 of 8");
  });
  it("show what dries longest, in the order it was laid", () => {
    const of = (start: string, wetMinutes: number) => ({ start, wetMinutes });
    const evening = session(tuesday.start, tuesday.end, [of("3", 40), of("1", 10), of("2", 90), of("4", 60)]);
    expect(drying(evening, 2).map((o) => o.start)).toEqual(["2", "4"]);
  });
});
