import { readdirSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { addressOf, places, viewAt, views, type View } from "./views";

const where = { setId: "s1", workshopId: "w1" };

describe("the list of views", () => {
  it("gives every view an id, an address and a key of its own", () => {
    for (const of of [(v: View) => v.id, (v: View) => v.path.split("/")[0], (v: View) => v.key]) {
      const all = views.map(of).filter(Boolean);
      expect(new Set(all).size).toBe(all.length);
    }
  });
  it("has a folder for every view and a view for every folder", () => {
    const folders = readdirSync(new URL("./features", import.meta.url)).sort();
    const named = views.map((v) => /features\/(\w+)\//.exec(v.load.toString())?.[1]).sort();
    expect(named).toEqual(folders);
  });
  it("puts every view where the bar or a menu shows it", () => {
    const homes = [...places.map((p) => p.id), "set menu", "workshop menu"];
    for (const v of views) expect(homes).toContain(v.home);
  });
  it.each(views.map((v) => [v.id, v] as const))("finds %s at its own address", (_, view) => {
    const address = addressOf(view, where)!;
    expect(address).not.toContain(":");
    expect(viewAt(address)).toBe(view);
    expect(viewAt(`${address}/more`)).toBe(view);
  });
  it("has no address for what is not known", () => {
    expect(
      addressOf(
        views.find((v) => v.id === "stock")!,
        { setId: "s1" },
      ),
    ).toBeNull();
    expect(viewAt("/nowhere/s1")).toBeUndefined();
  });
  it("takes one more view with no more than an entry", () => {
    const more: View = { ...views[0]!, id: "more", path: "more/:setId", key: "9" };
    expect(addressOf(more, where)).toBe("/more/s1");
  });
});
