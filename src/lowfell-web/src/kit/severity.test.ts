import { describe, expect, it } from "vitest";
import { moved, plural } from "./severity";

describe("what goes and comes", () => {
  it.each([
    [3, 1, "3 remarks go, 1 comes"],
    [1, 2, "1 remark goes, 2 come"],
    [2, 0, "2 remarks go"],
    [0, 1, "1 remark comes"],
    [0, 2, "2 remarks come"],
    [0, 0, "no remark goes or comes"],
  ])("%i gone, %i come", (gone, come, says) => expect(moved(gone, come)).toBe(says));
  it("counts in words", () => expect([plural(1, "zone"), plural(0, "zone")]).toEqual(["1 zone", "0 zones"]));
});
