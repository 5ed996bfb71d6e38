import { describe, expect, it } from "vitest";
import {
  chainPath,
  clock,
  day,
  drying,
  hands,
  inHundred,
  into,
  keyOf,
  longest,
  neighbour,
  nights,
  nightWords,
  painterWords,
  pieceWords,
  workWords,
  type Operation,
  type Session,
} from "./evenings";

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
  it("know whose hands are at work, and what lies before and after", () => {
    const [first, second] = [
      { id: 1, painter: 1 },
      { id: 2, painter: 0 },
    ] as Operation[];
    const plan = {
      sessions: [session("a", "b", [first!, { ...first!, id: 3, painter: 0 }]), session("c", "d", [second!])],
    };
    expect(hands(plan.sessions[0]!)).toEqual([0, 1]);
    expect(neighbour(plan, first!, 1)?.start).toBe("c");
    expect(neighbour(plan, second!, 1)).toBeNull();
    expect(neighbour(plan, second!, -1)?.start).toBe("a");
    expect([painterWords({ painters: ["EW"] }, 0), painterWords({ painters: ["EW"] }, 1)]).toEqual([
      "EW",
      "painter 2",
    ]);
    const key = { zoneId: "z", layerId: "l", pieceId: "p" };
    expect(keyOf({ ...key, beforehand: false })).toBe("z l p");
    expect(keyOf({ ...key, beforehand: true })).not.toBe("z l p");
  });
  it("are tied by a line along what binds: over to the other hands, or down the night between", () => {
    const foot = (x: number, y: number, gap: number) => ({ from: { x, y }, to: { x: x + 10, y }, gap });
    expect(chainPath([foot(0, 5, 50), foot(20, 8, 50), foot(3, 70, 120)])).toBe(
      "M0 5L10 5L10 8L20 8L30 8L30 50L3 50L3 70L13 70",
    );
    expect(chainPath([])).toBe("");
  });
  it("say chance and work as a painter does", () => {
    expect([0, 0.149, 1].map(inHundred)).toEqual(["no chance", "15 in 100", "as good as certain"]);
    expect([40, 130, 4900].map(workWords)).toEqual(["40 min", "2.2 h", "82 h"]);
  });
});
