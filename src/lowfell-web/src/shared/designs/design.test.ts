import { describe, expect, it } from "vitest";
import { anotherZone, BARE, changeKind, designSchema, draftOf, isGuessed, toBody } from "./design";
import type { Preset } from "./presets";

const zone = {
  name: "Front face",
  areaCm2: 120,
  relief: "deep",
  edgeMm: 400,
  jointMm: 1000,
  up: 0.25,
  targetSheen: null,
  ground: "Plain stone grey",
} as const;
const wall: Preset = {
  kind: "wall",
  says: "",
  name: "Wall section",
  pieces: 6,
  substrate: "printed plastic",
  silhouette: "wall",
  zones: [zone],
};
const base: Preset = { ...wall, kind: "base", name: "Base, 32 mm", pieces: 12, silhouette: "base" };

describe("a design as it is typed", () => {
  it("goes out as it came in when nothing is changed", () => {
    expect(toBody(designSchema.parse(draftOf(wall)))).toMatchObject({
      name: "Wall section",
      pieces: 6,
      zones: [{ ...zone, treatmentId: null, startingLayers: true }],
    });
  });

  it("takes units and per cent, begins bare or shares a treatment", () => {
    const draft = draftOf(wall);
    draft.zones[0] = {
      ...draft.zones[0]!,
      areaCm2: "1,5 dm²",
      edgeMm: "40 cm",
      jointMm: "",
      up: "50",
      layers: BARE,
    };
    expect(toBody(designSchema.parse(draft)).zones![0]).toMatchObject({
      areaCm2: 150,
      edgeMm: 400,
      jointMm: null,
      up: 0.5,
      startingLayers: false,
      treatmentId: null,
    });
    draft.zones[0].layers = "0b7e1a52-0000-4000-8000-000000000001";
    expect(toBody(designSchema.parse(draft)).zones![0]).toMatchObject({
      startingLayers: false,
      treatmentId: draft.zones[0].layers,
    });
  });

  it("refuses half a piece, no zone, and two zones of one name, each at its field", () => {
    const said = (change: object) => {
      const read = designSchema.safeParse({ ...draftOf(wall), ...change });
      return read.success ? [] : read.error.issues.map((i) => [i.path.join("."), i.message]);
    };
    expect(said({ pieces: "2.5" })).toEqual([["pieces", "The number of pieces is a whole number."]]);
    expect(said({ zones: [] })).toEqual([["zones", "A design has at least one zone."]]);
    const twice = [...draftOf(wall).zones, ...draftOf(wall).zones];
    expect(said({ zones: twice })).toEqual([["zones.1.name", "Give every zone a name of its own."]]);
    expect(said({ zones: [anotherZone(draftOf(wall))] })).toEqual([
      ["zones.0.name", "The zone's name is missing."],
      ["zones.0.areaCm2", "The area is missing."],
    ]);
  });

  it("knows a guess from what was measured", () => {
    const first = draftOf(wall).zones[0]!;
    expect(isGuessed(first, "areaCm2")).toBe(true);
    expect(isGuessed({ ...first, areaCm2: "118 cm²" }, "areaCm2")).toBe(false);
    expect(isGuessed({ ...first, areaCm2: "118 cm²" }, "jointMm")).toBe(true);
    expect(isGuessed(anotherZone(draftOf(wall)), "up")).toBe(false);
  });

  it("keeps name and number that were typed when the kind is changed, and brings zones back with their kind", () => {
    const presets = [wall, base];
    expect(changeKind(draftOf(wall), presets, base, {})).toEqual(draftOf(base));
    const typed = { ...draftOf(wall), name: "Dyke", pieces: "3" };
    expect(changeKind(typed, presets, base, {})).toEqual({ ...draftOf(base), name: "Dyke", pieces: "3" });
    const measured = { ...typed, zones: [{ ...typed.zones[0]!, areaCm2: "99" }] };
    const there = changeKind(measured, presets, base, {});
    expect(changeKind(there, presets, wall, { wall: measured })).toEqual(measured);
  });
});
