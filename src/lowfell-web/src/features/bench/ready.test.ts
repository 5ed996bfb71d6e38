import { describe, expect, it } from "vitest";
import { factOf, notReady } from "./ready";
import type { Piece, Task, Wet } from "./types";

const NOW = Date.UTC(2026, 10, 26, 20);
const at = (minutes: number) => new Date(NOW + minutes * 60_000).toISOString();
const pieces = ["W1", "W2", "W3"].map((label) => ({ id: label, label }) as Piece);
const task = { zoneId: "z", layerId: "b", technique: "dry brush" } as Task;
const wet = (pieceId: string, readyIn: number, more: Partial<Wet> = {}) =>
  ({
    zoneId: "z",
    layerId: "a",
    pieceId,
    eventId: "e",
    technique: "base coat",
    readyAt: at(readyIn),
    closes: null,
    opensAt: null,
    closesAt: null,
    ...more,
  }) as Wet;

describe("what lies below and is not ready", () => {
  it("is asked about for the pieces it lies on, and only while it is not ready", () => {
    const found = notReady(task, pieces, [wet("W1", 12), wet("W2", 12), wet("W3", -1)], NOW, new Set());
    expect(found.map((f) => f.pieces.map((p) => p.label))).toEqual([["W1", "W2"]]);
    expect(notReady(task, pieces, [wet("W1", 0)], NOW, new Set())).toEqual([]);
  });

  it("is asked once of what was laid", () => {
    const [first] = notReady(task, pieces, [wet("W1", 12)], NOW, new Set());
    expect(notReady(task, pieces, [wet("W1", 12)], NOW, new Set(first!.keys))).toEqual([]);
    expect(
      notReady(task, pieces, [wet("W1", 12, { eventId: "again" })], NOW, new Set(first!.keys)),
    ).toHaveLength(1);
  });

  it("is no question where the other is meant to be open, as long as it is", () => {
    const open = { closes: "dry brush", opensAt: at(-5), closesAt: at(5) };
    expect(notReady(task, pieces, [wet("W1", 600, open)], NOW, new Set())).toEqual([]);
    expect(
      notReady(task, pieces, [wet("W1", 600, { ...open, closesAt: at(-1) })], NOW, new Set()),
    ).toHaveLength(1);
    expect(
      notReady(task, pieces, [wet("W1", 600, { ...open, opensAt: at(1) })], NOW, new Set()),
    ).toHaveLength(1);
    expect(
      notReady(task, pieces, [wet("W1", 600, { ...open, closes: "clean up excess" })], NOW, new Set()),
    ).toHaveLength(1);
  });

  it("is nothing of another zone or piece", () => {
    expect(notReady(task, pieces, [wet("W1", 12, { zoneId: "y" }), wet("W9", 12)], NOW, new Set())).toEqual(
      [],
    );
  });

  it("stands in the log as a fact", () => {
    const below = notReady(task, pieces, [wet("W1", 12), wet("W3", 12)], NOW, new Set());
    expect(factOf(below)).toMatch(/^laid on W1, W3 before base coat was ready, from \d\d:\d\d$/);
  });
});
