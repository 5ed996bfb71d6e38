import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { partOf, partWords } from "./parts";

const seen = (colour: string) => ({ raised: colour, field: colour, recess: colour });
const film = { raised: 20, field: 20, recess: 20 };
const reading = {
  parts: [
    { name: "the rest", share: 0.667 },
    { name: "lower third", share: 0.333 },
  ],
  layers: [
    {
      ...seen("#445566"),
      wetField: "#334455",
      filmUm: film,
      change: film,
      cover: film,
      parts: [
        { lies: false, dry: seen("#111111"), wet: seen("#101010") },
        { lies: true, dry: seen("#eeeeee"), wet: seen("#dddddd") },
      ],
    },
  ],
} as unknown as Schema["Reading"];

describe("a part of a zone", () => {
  it("shows its own colours, dry and wet", () => {
    const [layer] = partOf(reading, "lower third").layers;
    expect([layer!.field, layer!.wetField, layer!.filmUm.field]).toEqual(["#eeeeee", "#dddddd", 20]);
  });

  it("has no film of a layer that does not lie there", () => {
    const [layer] = partOf(reading, "the rest").layers;
    expect([layer!.field, layer!.filmUm.field, layer!.change.raised, layer!.cover.recess]).toEqual([
      "#111111",
      0,
      0,
      0,
    ]);
  });

  it("is the whole where none is asked for, or it is no longer there", () => {
    expect(partOf(reading, null)).toBe(reading);
    expect(partOf(reading, "spots")).toBe(reading);
  });

  it("is named with its share", () => {
    expect(reading.parts.map(partWords)).toEqual(["the rest, 67 %", "lower third, 33 %"]);
    expect(partWords({ name: "edges", share: 0.002 })).toBe("edges, under 1 %");
  });
});
