import { expect, test } from "vitest";
import { moved, touched } from "./moved";

const told = (versions: object, write = "theirs") => ({ versions, write });

test("what another stored is read again, and only what it touches", () => {
  const slices = moved({ plan: 4, stock: 9 }, told({ plan: 5 }), false);
  expect(slices).toEqual(["plan"]);
  expect(touched(slices)).toContain("overview");
  expect(touched(slices)).not.toContain("materials");
});

test("an own write is known already, unless one in between was missed", () => {
  expect(moved({ plan: 4 }, told({ plan: 5 }), true)).toEqual([]);
  expect(moved({ plan: 4 }, told({ plan: 6 }), true)).toEqual(["plan"]);
});

test("coming back after a gap is told by versions alone", () => {
  expect(moved({ plan: 4, shelf: 2, work: 7 }, told({ plan: 9, shelf: 2, work: 8 }), false)).toEqual([
    "plan",
    "work",
  ]);
});

test("the very first write to a slice is heard, and nothing goes backwards", () => {
  expect(moved({ shelf: 3 }, told({ plan: 1 }), false)).toEqual(["plan"]);
  expect(moved({ shelf: 3 }, told({ plan: 1 }), true)).toEqual([]);
  expect(moved({ plan: 6 }, told({ plan: 5 }), false)).toEqual([]);
});

test("a query that shows two moved slices is read once", () => {
  const keys = touched(["plan", "work"]);
  expect(keys.filter((k) => k === "overview")).toHaveLength(1);
});
