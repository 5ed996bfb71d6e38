import { describe, expect, it } from "vitest";
import type { Preset } from "../../shared/designs/presets";
import { begin, schema, stepOf, toNewSet, type Typed } from "./set";

const preset: Preset = {
  kind: "base",
  says: "",
  name: "Base, 32 mm",
  pieces: 12,
  substrate: "moulded plastic",
  silhouette: "base",
  zones: [
    {
      name: "Ground",
      areaCm2: 8,
      relief: "deep",
      edgeMm: 20,
      jointMm: 40,
      up: 1,
      targetSheen: null,
      ground: "Plain earth brown",
    },
  ],
};
const faults = (change: Partial<Typed>) => {
  const read = schema.safeParse({ ...begin(undefined, preset), ...change });
  return read.success
    ? []
    : read.error.issues.map((i) => [i.path.join("."), i.message, stepOf(i.path.join("."))]);
};

const bench = { tableMetres: 1.2, handling: "hard play", targetSheen: "satin" } as const;

describe("a first set", () => {
  it("can be made as it stands", () => {
    expect(toNewSet(schema.parse(begin(undefined, preset)), null)).toMatchObject({
      workshopId: null,
      workshop: "My bench",
      scale: 56,
      tableMetres: 0.9,
      design: { name: "Base, 32 mm", pieces: 12 },
    });
  });

  it("brings its workshop along only where there is none", () => {
    expect(
      toNewSet(schema.parse(begin({ ...bench, name: "Fen Row bench", sets: [] }, preset)), "w"),
    ).toMatchObject({
      workshopId: "w",
      workshop: null,
    });
  });

  it("is checked in the step where a fault was made", () => {
    expect(faults({ scale: "1:48" })).toEqual([]);
    expect(faults({ scale: "forty" })).toEqual([["scale", "“forty” is not a scale. Write it as 1:56.", 0]]);
    expect(faults({ tableMetres: "90 cm" })).toEqual([]);
    expect(faults({ tableMetres: "90" })).toEqual([["tableMetres", "The distance is at most 10 m.", 0]]);
    const design = begin(undefined, preset).design;
    expect(faults({ design: { ...design, pieces: "2,5" } })).toEqual([
      ["design.pieces", "The number of pieces is a whole number.", 2],
    ]);
    expect(faults({ design: { ...design, zones: [{ ...design.zones[0]!, areaCm2: "0" }] } })).toEqual([
      ["design.zones.0.areaCm2", "The area is more than 0 cm².", 3],
    ]);
  });

  it("says what the server says at the step it speaks of", () => {
    expect(stepOf("design.zones[2].name")).toBe(3);
    expect(stepOf("name")).toBe(0);
    expect(stepOf("workshop")).toBe(0);
    expect(stepOf("")).toBe(4);
  });
  it("is called the first only where there is none yet", () => {
    expect(begin(undefined, preset)).toMatchObject({ workshop: "My bench", name: "My first set" });
    expect(begin({ ...bench, name: "Attic", sets: [{}, {}] }, preset)).toMatchObject({
      tableMetres: "1.2 m",
      handling: "hard play",
      targetSheen: "satin",
      workshop: "Attic",
      name: "Set 3",
    });
  });
});
