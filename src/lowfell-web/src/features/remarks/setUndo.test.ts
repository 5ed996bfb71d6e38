import { describe, expect, it } from "vitest";
import type { Schema } from "../../api/client";
import { doneTo, forget, remember, wayBack } from "./setUndo";

const change = (id: string, version: number) =>
  ({ treatmentId: id, version, before: [{ id: `${id}-layer` }] }) as unknown as Schema["TreatmentChange"];

describe("the way back from a remedy over the set", () => {
  it("puts every treatment back as it was, at the version it now has", () => {
    const back = wayBack("Wait", [change("a", 7), change("b", 9)]);
    expect(back.stacks.map((s) => [s.treatmentId, s.version, s.layers[0]!.id])).toEqual([
      ["a", 7, "a-layer"],
      ["b", 9, "b-layer"],
    ]);
  });
  it("goes back in the order things were done, set by set", () => {
    remember("one", wayBack("first", [change("a", 1)]));
    remember("one", wayBack("second", [change("a", 2)]));
    remember("two", wayBack("elsewhere", []));
    expect(doneTo("one").at(-1)?.text).toBe("second");
    forget("one");
    expect(doneTo("one").at(-1)?.text).toBe("first");
    forget("one");
    expect(doneTo("one")).toEqual([]);
    expect(doneTo("two")).toHaveLength(1);
  });
});
