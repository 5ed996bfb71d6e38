import { expect, test } from "vitest";
import type { Schema } from "../../api/client";
import { fitsFor, order } from "./suits";

const wash = { technique: "wash", suits: ["wash", "ink"] } as unknown as Schema["TechniqueDto"];
const m = (id: string, kind: string, stockMl = 10) => ({ id, kind: kind as Schema["MaterialKind"], stockMl });
const ids = (list: { id: string }[]) => list.map((x) => x.id).join("");

test("what suits comes before what does not", () => {
  expect(ids(order([m("a", "paint"), m("b", "wash"), m("c", "ink")], wash, []))).toBe("bca");
});
test("what was used lately comes first among what suits, the latest before the others", () => {
  const all = [m("a", "wash"), m("b", "wash"), m("c", "wash"), m("d", "paint")];
  expect(ids(order(all, wash, ["d", "c", "b"]))).toBe("cbad");
});
test("what has run out comes after what is there, and is not hidden", () => {
  expect(ids(order([m("a", "wash", 0), m("b", "wash", 2)], wash, []))).toBe("ba");
});
test("without a technique the order of the shelf stays", () => {
  expect(ids(order([m("a", "paint"), m("b", "wash")], undefined, []))).toBe("ab");
  expect(fitsFor(m("a", "paint"), undefined)).toBe(false);
});
