import { expect, it } from "vitest";
import { strengthWords } from "./strength";

const taught = (hidingAfter: number, tintAfter: number) =>
  strengthWords({
    materialId: "m",
    material: "Umber",
    hidingBefore: 1,
    tintBefore: 1,
    hidingAfter,
    tintAfter,
  });

it("says what a paint does more or less, and nothing where it is as thought", () => {
  expect(taught(1, 1.14)).toBe("tints 14 % more than it was thought to");
  expect(taught(0.8, 1.01)).toBe("hides 20 % less than it was thought to");
  expect(taught(1.1, 0.9)).toBe("hides 10 % more and tints 10 % less than it was thought to");
  expect(taught(1.01, 0.99)).toBe("");
});
