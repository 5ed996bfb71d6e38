import type { Schema } from "../../api/client";

type Material = Schema["MaterialCard"];
type Technique = Schema["TechniqueDto"];

/** Whether a material is of a kind that a technique is done with. */
export const fitsFor = (m: Pick<Material, "kind">, info: Technique | undefined) =>
  info?.suits.includes(m.kind) ?? false;

/** Materials as one looks for them: what suits before what does not, used lately before the rest, what is there before what has run out. */
export function order<M extends Pick<Material, "id" | "kind" | "stockMl">>(
  materials: readonly M[],
  info: Technique | undefined,
  lately: readonly string[],
): M[] {
  const rank = (m: M) => {
    const used = lately.indexOf(m.id);
    return (fitsFor(m, info) ? 0 : 1000) + (used >= 0 ? used : 100) + (m.stockMl > 0 ? 0 : 10);
  };
  return materials
    .map((m, i) => ({ m, i, rank: rank(m) }))
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .map((x) => x.m);
}
