import { expect, it } from "vitest";
import { blot } from "./blot";

it("is as large as it says, about its middle, and differs from place to place", () => {
  const numbers = blot(20, 10, 8)
    .match(/-?\d+\.\d+/g)!
    .map(Number);
  const xs = numbers.filter((_, i) => i % 2 === 0);
  expect(Math.min(...xs)).toBeGreaterThan(20 - 4.8);
  expect(Math.max(...xs)).toBeLessThan(20 + 4.8);
  expect(blot(20, 10, 8)).toBe(blot(20, 10, 8));
  expect(blot(20, 10, 8)).not.toBe(blot(0, 0, 8));
});
