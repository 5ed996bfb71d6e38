import { readRatio } from "../../shared/words";
import type { Factor, Layer, Trial } from "./types";

/** What can be varied about a layer, and how its levels are written. */
export const kinds = {
  coats: { words: "coats", example: "1, 2, 3" },
  heaviness: { words: "how heavily", example: "50 %, 100 %, 160 %" },
  thinning: { words: "thinning", example: "neat, 1:1, 1:3" },
  paint: { words: "paint", example: "" },
  whether: { words: "whether it is laid", example: "" },
} as const;
export type Kind = keyof typeof kinds;

const MOST_LEVELS = 5,
  FEWEST_LEVELS = 2;

/** A draft of a factor, as it is typed. */
export type Draft = { layerId: string; kind: Kind; text: string; materials: readonly string[] };

/** What a layer begins with when it is to be varied in some way. */
export function usual(layer: Layer, kind: Kind): string {
  if (kind === "coats") return [0, 1, 2].map((n) => Math.max(1, layer.coats - 1) + n).join(", ");
  if (kind === "heaviness")
    return [0.5, 1, 1.6].map((h) => `${Math.round(layer.strength * h * 100)} %`).join(", ");
  if (kind === "thinning")
    return layer.dilution
      ? `neat, ${layer.dilution.paint}:${layer.dilution.thinner}, ${layer.dilution.paint}:${layer.dilution.thinner * 2}`
      : "neat, 2:1, 1:1";
  return "";
}

/** The levels of a draft as layers, or what is wrong with it. */
export function read(
  draft: Draft,
  layer: Layer,
  thinnerId: string | undefined,
): { factor: Factor } | { fault: string } {
  const words = draft.text
    .split(/[,;]\s*/)
    .map((w) => w.trim())
    .filter(Boolean);
  const level = (change: Partial<Layer>): Layer => ({ ...layer, ...change });
  let levels: (Layer | null)[];
  if (draft.kind === "whether") levels = [null, layer];
  else if (draft.kind === "paint")
    levels = draft.materials.map((id) => level({ paint: [{ materialId: id, parts: 1 }] }));
  else if (draft.kind === "coats") {
    const counts = words.map(Number);
    if (counts.some((n) => !Number.isInteger(n) || n < 1))
      return { fault: "Write whole numbers of coats, as 1, 2, 3." };
    levels = counts.map((coats) => level({ coats }));
  } else if (draft.kind === "heaviness") {
    const shares = words.map((w) => Number(w.replace("%", "").replace(",", ".").trim()) / 100);
    if (shares.some((s) => !(s > 0 && s <= 3)))
      return { fault: "Write shares of the usual, as 50 %, 100 %, 160 %." };
    levels = shares.map((strength) => level({ strength }));
  } else {
    const ratios = words.map(readRatio);
    if (ratios.some((r) => r === null))
      return { fault: "Write ratios of paint to thinner, as neat, 2:1, 1:1." };
    const thinner = layer.dilution?.thinnerId ?? thinnerId;
    if (!thinner) return { fault: "No thinner on the shelf suits this layer." };
    levels = ratios.map((r) =>
      level({
        dilution:
          r === "neat" || r === null ? null : { thinnerId: thinner, paint: r.paint, thinner: r.thinner },
      }),
    );
  }
  if (levels.length < FEWEST_LEVELS) return { fault: "Give it two levels at least." };
  if (levels.length > MOST_LEVELS) return { fault: `At most ${MOST_LEVELS} levels.` };
  // A level that leaves the layer out is null, which the description of the API has no word for within a list.
  return { factor: { layerId: layer.id, levels: levels as Layer[] } };
}

/**
 * A trial without one of two levels that nobody could tell apart: not the one that is held beside the model. A factor of which one level is left is none
 * any more; null where nothing would be left to try.
 */
export function less(
  factors: readonly Factor[],
  trial: Pick<Trial, "cells">,
  alike: Trial["alike"][number],
): Factor[] | null {
  const held = trial.cells.find((c) => c.held)?.levels[alike.factor];
  const out = held === alike.second ? alike.first : alike.second;
  const left = factors
    .map((f, i) => (i === alike.factor ? { ...f, levels: f.levels.filter((_, l) => l !== out) } : f))
    .filter((f) => f.levels.length >= FEWEST_LEVELS);
  return left.length > 0 ? left : null;
}
