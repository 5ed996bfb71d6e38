/** The slices of a workshop, and the queries that show something of each. */
const shows = {
  plan: [
    "overview",
    "zone",
    "remarks",
    "table",
    "estimates",
    "sessions",
    "alternatives",
    "chance",
    "fit",
    "treatments",
    "library",
    "treatment order",
    "versions",
    "sets",
    "set",
    "steps",
    "variation",
    "variations",
    "bases",
    "tray",
    "workshops",
    "house",
    "pots",
    "stock",
    "bench",
    "cores",
    "so far",
    "log",
    "learned",
    "record",
    "trials",
    "trial",
  ],
  shelf: [
    "trial",
    "tray",
    "variation",
    "materials",
    "recipes",
    "uses",
    "nearest",
    "calibrations",
    "overview",
    "zone",
    "remarks",
    "table",
    "estimates",
    "sessions",
    "alternatives",
    "chance",
    "fit",
    "pots",
    "stock",
    "library",
    "treatment order",
    "steps",
    "bench",
    "cores",
  ],
  stock: ["materials", "stock", "pots", "zone"],
  work: [
    "pots",
    "overview",
    "estimates",
    "sessions",
    "alternatives",
    "chance",
    "fit",
    "zone",
    "remarks",
    "stock",
    "sets",
    "set",
    "steps",
    "bench",
    "cores",
    "so far",
    "story",
    "log",
    "photos",
    "learned",
    "record",
    "variation",
    "mishaps",
    "unfit",
    "put away photos",
  ],
  sessions: ["sessions", "bench", "chance", "calendar", "steps"],
  devices: ["devices"],
} as const;

export type Slice = keyof typeof shows;
export type Versions = Partial<Record<Slice, number>>;

/** A change as it is told: versions the slices have come to, and the write that did it. */
export type Change = { versions: Versions; write: string };

/**
 * Slices that somebody else moved on. Own writes are known already, unless a version in between was missed. A slice that nothing was
 * ever written to has no version yet, and so begins at 0.
 */
export function moved(seen: Versions, change: Change, own: boolean): Slice[] {
  return all.filter((slice) => {
    const [was, is] = [seen[slice] ?? 0, change.versions[slice]];
    return is !== undefined && is > was + (own ? 1 : 0);
  });
}

/** The keys of the queries that show something of these slices. */
export const touched = (slices: readonly Slice[]) => [...new Set(slices.flatMap((s) => shows[s]))];

export const all = Object.keys(shows) as Slice[];
