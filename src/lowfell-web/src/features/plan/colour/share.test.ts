import { expect, it } from "vitest";
import { paintShare, partsOf } from "./share";

it("turns every share of a slider into whole parts and back", () => {
  for (let percent = 10; percent < 100; percent++) {
    const parts = partsOf(percent)!;
    expect(Number.isInteger(parts.paint) && Number.isInteger(parts.thinner)).toBe(true);
    expect(paintShare({ thinnerId: "t", ...parts })).toBeCloseTo(percent, 9);
  }
});

it("writes parts as small as they go, and neat as nothing", () => {
  expect(partsOf(80)).toEqual({ paint: 4, thinner: 1 });
  expect(partsOf(65)).toEqual({ paint: 13, thinner: 7 });
  expect(partsOf(100)).toBeNull();
  expect(paintShare(null)).toBe(100);
});
