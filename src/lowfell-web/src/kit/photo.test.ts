import { expect, it } from "vitest";
import { patchMean } from "./photo";

const pixels = (width: number, height: number, at: (x: number, y: number) => [number, number, number]) => ({
  width,
  height,
  data: Array.from({ length: height }, (_, y) =>
    Array.from({ length: width }, (_, x) => [...at(x, y), 255]).flat(),
  ).flat(),
});

it("takes the mean of black and white in linear light, not of bytes", () => {
  const chequered = pixels(2, 1, (x) => (x === 0 ? [0, 0, 0] : [255, 255, 255]));
  expect(patchMean(chequered, 0, 0, 1)).toEqual([0.5, 0.5, 0.5]);
});

it("leaves out what lies outside of the photo", () => {
  const flat = pixels(4, 4, () => [128, 64, 32]);
  const [r, g, b] = patchMean(flat, 0, 0, 6);
  expect(r).toBeCloseTo(0.21586, 4);
  expect(g).toBeCloseTo(0.05127, 4);
  expect(b).toBeCloseTo(0.01444, 4);
});

it("looks only as far as it is told", () => {
  const dot = pixels(9, 9, (x, y) => (x === 4 && y === 4 ? [255, 255, 255] : [0, 0, 0]));
  expect(patchMean(dot, 4, 4, 1)[0]).toBeCloseTo(1 / 9, 9);
  expect(patchMean(dot, 0, 0, 1)[0]).toBe(0);
});
