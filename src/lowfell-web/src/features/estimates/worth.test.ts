import { describe, expect, it } from "vitest";
import { about, dearest, leastWorth, perTenMinutes, placed } from "./worth";
import type { Schema } from "../../api/client";

const layer = (
  number: number,
  minutes: number,
  adds: number,
  purpose: Schema["Purpose"] = "look",
): Schema["LayerCost"] => ({
  id: `l${number}`,
  number,
  technique: "base coat",
  paint: "Peat Seven",
  piecesToGo: minutes > 0 ? 4 : 0,
  minutes,
  spentMinutes: 0,
  toGoMinutes: 0,
  adds,
  left: 0,
  purpose,
  seen: { raised: "#000000", field: "#000000", recess: "#000000" },
});

const reading: Schema["EstimatesReading"] = {
  setId: "s",
  workshopId: "w",
  workshopVersion: 1,
  tableMetres: 0.9,
  minutes: 100,
  typicalError: 0.3,
  techniques: [],
  savings: [],
  designs: [
    {
      id: "d",
      name: "Wall",
      silhouette: "wall",
      pieces: 4,
      minutes: 100,
      zones: [
        {
          id: "z",
          name: "Brick",
          minutes: 100,
          layers: [
            layer(1, 30, 0.1, "hold"),
            layer(2, 40, 8),
            layer(3, 20, 0.2),
            layer(4, 2, 0),
            layer(6, 50, 0, "make"),
            layer(5, 0, 3),
          ],
        },
      ],
    },
  ],
};

describe("what layers are worth", () => {
  it("names every layer that is still to do, and where", () => {
    expect(placed(reading).map((l) => [l.number, l.zone])).toEqual(
      [1, 2, 3, 4, 6].map((n) => [n, "Wall, Brick"]),
    );
  });
  it("puts the dearest first", () => {
    expect(dearest(placed(reading)).map((l) => l.number)).toEqual([6, 2, 1, 3, 4]);
  });
  it("offers what shows least for its minutes, and nothing that is there to hold or to shape", () => {
    expect(leastWorth(placed(reading)).map((l) => l.number)).toEqual([3, 2]);
  });
  it("says a time with its range in hours, and short ones in minutes", () => {
    expect(about(6000, 0.3)).toBe("70 to 130 h");
    expect(about(200, 0.3)).toBe("2.3 to 4.3 h");
    expect(about(40, 0.3)).toBe("28 to 52 min");
  });
  it("asks nothing of what is done", () => {
    expect(perTenMinutes({ adds: 3, minutes: 0 })).toBeNull();
    expect(perTenMinutes({ adds: 3, minutes: 30 })).toBeCloseTo(1);
  });
});
