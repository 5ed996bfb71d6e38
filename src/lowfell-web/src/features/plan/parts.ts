import type { Schema } from "../../api/client";

type Reading = Schema["Reading"];

/** A reading as it is looked at: of a part there is no range. */
export type SeenReading = Omit<Reading, "layers"> & { layers: SeenLayer[] };
export type SeenLayer = Omit<Schema["LayerReading"], "range"> & { range: Schema["RangeReading"] | null };

/** The same reading as one part of the zone shows it; the whole when there is no such part. */
export function partOf(reading: Reading, name: string | null): SeenReading {
  const at = reading.parts.findIndex((p) => p.name === name);
  if (at < 0) return reading;
  const nothing = { raised: 0, field: 0, recess: 0 };
  return {
    ...reading,
    layers: reading.layers.map((l) => {
      const { dry, wet, lies } = l.parts[at]!;
      return {
        ...l,
        ...dry,
        wetRaised: wet.raised,
        wetField: wet.field,
        wetRecess: wet.recess,
        // Hands are looked at over the whole zone.
        range: null,
        ...(lies ? {} : { change: nothing, filmUm: nothing, cover: nothing }),
      };
    }),
  };
}

/** "lower third, 33 %". */
export const partWords = (p: Schema["PartDto"]) =>
  `${p.name}, ${p.share < 0.01 ? "under 1" : Math.round(p.share * 100)} %`;
