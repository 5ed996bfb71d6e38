import { describe, expect, it } from "vitest";
import { schema, toZone, typedOf, type Typed } from "./measures";

const zone = {
  name: "Brick field",
  areaCm2: 120.5,
  relief: "deep",
  edgeMm: 400,
  jointMm: 1000,
  up: 0.2,
  side: 0.7,
  down: 0.1,
  raised: 0.25,
  field: 0.5,
  recess: 0.25,
  cutEdge: false,
  beforeAssembly: true,
} as Parameters<typeof typedOf>[0];
const read = (change: Partial<Typed>) => schema.safeParse({ ...typedOf(zone), ...change });
const sent = (change: Partial<Typed>) => toZone(schema.parse({ ...typedOf(zone), ...change }), zone, 4);
const faults = (change: Partial<Typed>) => {
  const found = read(change);
  return found.success
    ? {}
    : Object.fromEntries(found.error.issues.map((i) => [i.path.join("."), i.message]));
};

describe("the measures of a zone", () => {
  it("go out as they came in", () => {
    expect(sent({})).toMatchObject({
      version: 4,
      areaCm2: 120.5,
      up: 0.2,
      side: 0.7,
      down: 0.1,
      raised: 0.25,
      beforeAssembly: true,
    });
  });

  it("keep up, sideways and down, which are 100 % together", () => {
    expect(sent({ up: "50", side: "30 %", down: "20 %" })).toMatchObject({ up: 0.5, side: 0.3, down: 0.2 });
    expect(faults({ up: "50 %" })).toEqual({
      up: "Up, sideways and down come to 130 %; together they are 100 %.",
    });
  });

  it("take the usual shares only with another relief", () => {
    expect(sent({ relief: "light" })).toMatchObject({ raised: 0.15, field: 0.7, recess: 0.15 });
    expect(sent({ relief: "deep" })).toMatchObject({ raised: 0.25, field: 0.5, recess: 0.25 });
  });

  it("never turn an empty field into nothing", () => {
    expect(faults({ areaCm2: "", edgeMm: " " })).toEqual({
      areaCm2: "The area is missing.",
      edgeMm: "The edges are missing.",
    });
  });
});
