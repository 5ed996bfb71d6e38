import { describe, expect, it } from "vitest";
import { zoneFrom } from "./walk";

const design = (id: string, ...zones: string[]) => ({ id, zones: zones.map((z) => ({ id: z })) });
const plan = [design("wall", "face", "back"), design("empty"), design("base", "mud", "rim")];

describe("walking through a plan", () => {
  it("goes from zone to zone and over to the next design", () => {
    const seen: string[] = [];
    for (let at: string | null = "face"; at; at = zoneFrom(plan, at, 1, "zones")) seen.push(at);
    expect(seen).toEqual(["face", "back", "mud", "rim"]);
    expect(zoneFrom(plan, "mud", -1, "zones")).toBe("back");
  });

  it("ends where the plan ends", () => {
    expect(zoneFrom(plan, "rim", 1, "zones")).toBeNull();
    expect(zoneFrom(plan, "face", -1, "zones")).toBeNull();
    expect(zoneFrom([], "face", 1, "designs")).toBeNull();
  });

  it("goes from design to design, past those that have no zone", () => {
    expect(zoneFrom(plan, "back", 1, "designs")).toBe("mud");
    expect(zoneFrom(plan, "rim", -1, "designs")).toBe("face");
    expect(zoneFrom(plan, "rim", 1, "designs")).toBeNull();
  });
});
