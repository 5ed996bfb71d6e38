import { expect, it } from "vitest";
import { areaOf, place, pxPerMm } from "./scene";

const zones = (...names: string[]) => names.map((name) => ({ name }));
const where = (silhouette: Parameters<typeof place>[0], ...names: string[]) => {
  const placed = place(silhouette, zones(...names));
  return { drawn: placed.drawn.map((d) => d.zone.name), homeless: placed.homeless.map((z) => z.name) };
};

it("finds each zone's place by what it is called", () => {
  const wall = where("wall", "Brick field", "Coping", "Tide band", "Mooring ring", "Back face");
  expect(wall.drawn).toHaveLength(5);
  expect(wall.homeless).toEqual([]);
  const boat = where("boat", "Hull", "Deck", "Tracks", "Bucket arm", "Cab glass", "Hazard stripes");
  expect(boat.drawn).toHaveLength(6);
});

it("draws every zone of a name it does not know while there is room", () => {
  expect(where("base", "Alpha", "Beta").drawn).toHaveLength(2);
});

it("says which zones have no place in the sketch", () => {
  expect(where("jetty", "Timber", "Lamp glass").homeless).toEqual(["Lamp glass"]);
});

it("leaves slots without a zone bare", () => {
  expect(place("house", zones("Walls")).bare).toHaveLength(5);
});

it("knows how large a sketch is", () => {
  expect(areaOf("M10 10H20V30H10Z")).toBe(200);
  expect(areaOf("M0 0L10 0L10 10ZM20 0L30 0L30 10Z")).toBe(100);
  expect(pxPerMm([{ slot: { path: "M0 0H200V100H0Z", words: /x/ }, zone: { areaCm2: 50 } }])).toBeCloseTo(
    2,
    6,
  );
  expect(pxPerMm([])).toBe(1);
});
