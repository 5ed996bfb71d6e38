// Means are taken in linear light: mixing encoded bytes would make every patch too dark.
const linear = Array.from({ length: 256 }, (_, v) => {
  const c = v / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
});

export type Pixels = { data: ArrayLike<number>; width: number; height: number };

/** Mean linear colour of a square patch around a point; what lies outside of the photo is left out. */
export function patchMean(pixels: Pixels, x: number, y: number, reach: number): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0];
  let count = 0;
  for (let j = Math.max(0, y - reach); j <= Math.min(pixels.height - 1, y + reach); j++)
    for (let i = Math.max(0, x - reach); i <= Math.min(pixels.width - 1, x + reach); i++) {
      const at = (j * pixels.width + i) * 4;
      for (let c = 0; c < 3; c++) sum[c]! += linear[pixels.data[at + c]!]!;
      count++;
    }
  return count === 0 ? [0, 0, 0] : [sum[0] / count, sum[1] / count, sum[2] / count];
}
