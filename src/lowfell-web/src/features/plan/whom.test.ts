import { describe, expect, it } from "vitest";
import type { Layer } from "./stack";
import { alsoOver, concerned } from "./whom";

const layer = (id: string, coats = 1) => ({ id, coats }) as unknown as Layer;
const [prime, brick, varnish] = [layer("prime"), layer("brick"), layer("varnish")];
const surfaces = ["wall", "coping", "iron", "rivets"].map((id) => ({
  id,
  name: id,
  onId: id === "rivets" ? "wall" : null,
}));
const sheet = {
  surfaceId: "wall",
  surfaces,
  over: [
    { layerId: "prime", stepId: "p", surfaces: ["wall", "coping", "iron", "rivets"] },
    { layerId: "brick", stepId: "b", surfaces: ["wall", "rivets"] },
    { layerId: "varnish", stepId: "v", surfaces: ["wall", "coping", "rivets"] },
  ],
};
const stack = [prime, brick, varnish];

describe("whom an edit is for", () => {
  it("names the other surfaces of a layer, and not the details that go with this one", () => {
    expect(alsoOver(sheet, "prime")).toEqual(["coping", "iron"]);
    expect(alsoOver(sheet, "brick")).toEqual([]);
    expect(alsoOver(sheet, "new")).toEqual([]);
  });

  it("concerns where changed and removed layers lie", () => {
    expect(concerned(sheet, stack, [prime, layer("brick", 2), varnish])).toEqual([]);
    expect(concerned(sheet, stack, [prime, brick, layer("varnish", 2)])).toEqual(["coping"]);
    expect(concerned(sheet, stack, [brick, varnish])).toEqual(["coping", "iron"]);
    expect(concerned(sheet, stack, stack)).toEqual([]);
  });

  it("concerns no other where a layer is put in, and all where they change places", () => {
    expect(concerned(sheet, stack, [prime, layer("new"), brick, varnish])).toEqual([]);
    expect(concerned(sheet, stack, [prime, varnish, brick])).toEqual(["coping", "iron"]);
  });
});
