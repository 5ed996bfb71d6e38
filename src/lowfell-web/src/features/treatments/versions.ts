import type { Schema } from "../../api/client";

type Version = Schema["VersionEntry"];
type Layer = Schema["LayerDto"];

/** A layer in two versions, tied by what it carries on: gone, come, or in both and perhaps changed. */
export type Tie = { id: string; left: Side | null; right: Side | null; changed: boolean };
export type Side = { at: number; layer: Layer; stratum: Schema["Stratum"] };

/** Two versions side by side, bottom first: in the order of the right one, what is only in the left where it was. */
export function tied(left: Version, right: Version): Tie[] {
  const side = (v: Version) =>
    new Map(v.layers.map((layer, at) => [layer.id, { at, layer, stratum: v.strata[at]! } satisfies Side]));
  const [l, r] = [side(left), side(right)];
  const ids = right.layers.map((x) => x.id);
  left.layers.forEach((x, i) => {
    if (!r.has(x.id)) ids.splice(Math.min(i, ids.length), 0, x.id);
  });
  return ids.map((id) => {
    const [a, b] = [l.get(id) ?? null, r.get(id) ?? null];
    return {
      id,
      left: a,
      right: b,
      changed: !a || !b || JSON.stringify(a.layer) !== JSON.stringify(b.layer),
    };
  });
}
