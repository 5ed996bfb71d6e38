import type { Schema } from "../../api/client";

type Point = Pick<Schema["FitPointDto"], "minutes" | "difference">;

export const WIDTH = 240,
  HEIGHT = 120;

const MARGIN = 10,
  FOOT = 24;

/** The first point that takes no more than these minutes; the last where none does. */
export const pointFor = (points: readonly Point[], minutes: number) => {
  const at = points.findIndex((p) => p.minutes <= minutes + 0.5);
  return at < 0 ? points.length - 1 : at;
};

/** The trade as a line: minutes kept from left to right, fewer and fewer, and what is kept of the look falling with them. */
export function curve(points: readonly Point[], at: number) {
  const [most, least] = [points[0]!.minutes, points.at(-1)!.minutes];
  const deepest = Math.max(0.1, points.at(-1)!.difference);
  const place = (p: Point) => ({
    x: MARGIN + ((WIDTH - 2 * MARGIN) * (most - p.minutes)) / Math.max(1, most - least),
    y: MARGIN + ((HEIGHT - MARGIN - FOOT) * p.difference) / deepest,
  });
  return {
    path: points
      .map(place)
      .map((p, i) => `${i ? "L" : "M"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`)
      .join(""),
    dot: place(points[at]!),
  };
}
