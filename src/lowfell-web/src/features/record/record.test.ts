import { describe, expect, it } from "vitest";
import { asDone, differs } from "./record";

const cell = (layerId: string, state: string, pot: string | null = null) =>
  ({ layerId, state, turn: 1, colour: "#445566", pot, at: null, wipes: 0, mishaps: 0, why: "" }) as never;

describe("a zone as it was really done", () => {
  it("has what lies on any piece, with the pieces and the pots", () => {
    const done = asDone({
      lines: [
        { layerId: "a", number: 1, technique: "prime", paint: "Slate Undercoat", colour: "#111111" },
        { layerId: "b", number: 2, technique: "base coat", paint: "Reed", colour: "#222222" },
        { layerId: "c", number: 3, technique: "varnish", paint: "Matt", colour: "#333333" },
      ],
      pieces: [
        { id: "1", label: "W1", differences: [], cells: [cell("a", "done"), cell("b", "done", "J1")] },
        { id: "2", label: "W2", differences: [], cells: [cell("a", "done"), cell("b", "done", "J2")] },
        { id: "3", label: "W3", differences: [], cells: [cell("a", "done"), cell("b", "skipped")] },
      ],
    } as never);
    expect(done.map((d) => [d.technique, d.on, d.pots])).toEqual([
      ["prime", ["W1", "W2", "W3"], []],
      ["base coat", ["W1", "W2"], ["J1", "J2"]],
    ]);
  });

  it("tells what differs once, with all pieces it is true of", () => {
    const missing = { words: "Layer 2 is not on it." };
    expect(
      differs({
        pieces: [
          { label: "W6", differences: [missing] },
          { label: "W7", differences: [missing, { words: "From Tide again" }] },
        ],
      } as never),
    ).toEqual([
      { words: "Layer 2 is not on it", on: ["W6", "W7"] },
      { words: "From Tide again", on: ["W7"] },
    ]);
  });
});
