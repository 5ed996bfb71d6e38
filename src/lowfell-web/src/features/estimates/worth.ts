import type { Schema } from "../../api/client";

export type Layer = Schema["LayerCost"];
export type Placed = Layer & { zoneId: string; zone: string };

/** Less work than this is not worth leaving out. */
const LEAST_MINUTES = 5;

/** What a layer changes from the table for ten minutes of it; null where there is nothing to do. */
export const perTenMinutes = (l: Pick<Layer, "adds" | "minutes">) =>
  l.minutes > 0 ? (l.adds / l.minutes) * 10 : null;

/** Every layer of a set still to do, with where it is. */
export const placed = (reading: Schema["EstimatesReading"]): Placed[] =>
  reading.designs.flatMap((d) =>
    d.zones.flatMap((z) =>
      z.layers
        .filter((l) => l.minutes > 0)
        .map((l) => ({ ...l, zoneId: z.id, zone: `${d.name}, ${z.name}` })),
    ),
  );

/** The dearest first. */
export const dearest = (layers: readonly Placed[]) => [...layers].sort((a, b) => b.minutes - a.minutes);

/** What layers say whose worth is not what they show. */
export const purposes = { look: "", hold: "it holds what is below", make: "colour does not tell" } as const;

/** What changes least for its minutes; layers that are there to hold or to shape are not asked what they show. */
export const leastWorth = (layers: readonly Placed[]) =>
  layers
    .filter((l) => l.purpose === "look" && l.minutes >= LEAST_MINUTES)
    .sort((a, b) => perTenMinutes(a)! - perTenMinutes(b)! || b.minutes - a.minutes);

/** A time and how far off it usually is, in hours with hands on: nobody paints for days on end. */
export function about(minutes: number, error: number): string {
  const [low, high] = [minutes * (1 - error), minutes * (1 + error)];
  return high < 90 ? `${Math.round(low)} to ${Math.round(high)} min` : `${hours(low)} to ${hours(high)} h`;
}

const hours = (n: number) => (n < 600 ? Math.round(n / 6) / 10 : Math.round(n / 60));
