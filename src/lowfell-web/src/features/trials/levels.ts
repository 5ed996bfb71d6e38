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

const typed = (text: string) =>
  text
    .split(/[,;]\s*/)
    .map((w) => w.trim())
    .filter(Boolean);

/** The levels of a draft as layers, or what is wrong with it. */
export function read(
  draft: Draft,
  layer: Layer,
  thinnerId: string | undefined,
): { factor: Factor } | { fault: string } {
  const words = typed(draft.text);
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

/** What lies under all colour or over it is rarely what a tile is painted for. */
const rarely = ["prime", "varnish"];

/** What one begins to vary: of the layers that are not varied yet the uppermost that colours, in what is most often asked of it. */
export function begun(layers: readonly Layer[], drafts: readonly Draft[]): Draft | null {
  const left = layers.filter((l) => l.paint.length > 0 && !drafts.some((d) => d.layerId === l.id));
  const layer = left.findLast((l) => !rarely.includes(l.technique)) ?? left[0];
  if (!layer) return null;
  const kind = layer.technique === "base coat" || rarely.includes(layer.technique) ? "coats" : "heaviness";
  return { layerId: layer.id, kind, text: usual(layer, kind), materials: [] };
}

type Alike = Trial["alike"][number];

/** Levels that nobody could tell from another, each once and with which: of two the second, unless that is the one held beside the model. */
export function spare(trial: Pick<Trial, "alike" | "cells">): { alike: Alike; level: number }[] {
  const held = trial.cells.find((c) => c.held)?.levels;
  return trial.alike
    .map((alike) => ({ alike, level: held?.[alike.factor] === alike.second ? alike.first : alike.second }))
    .filter(
      (s, i, all) => i === all.findIndex((o) => o.alike.factor === s.alike.factor && o.level === s.level),
    );
}

/** Factors without one level of one. A factor of which one level is left is none any more; null where nothing would be left to try. */
export function less(factors: readonly Factor[], factor: number, level: number): Factor[] | null {
  const left = factors
    .map((f, i) => (i === factor ? { ...f, levels: f.levels.filter((_, l) => l !== level) } : f))
    .filter((f) => f.levels.length >= FEWEST_LEVELS);
  return left.length > 0 ? left : null;
}

/** The same of what was typed; null where one level would be left. */
export function lessTyped(draft: Draft, level: number): Draft | null {
  const without = <T>(all: readonly T[]) => all.filter((_, i) => i !== level);
  if (draft.kind === "whether") return null;
  const text = draft.kind === "paint" ? draft.text : without(typed(draft.text)).join(", ");
  const materials = draft.kind === "paint" ? without(draft.materials) : draft.materials;
  return (draft.kind === "paint" ? materials : typed(text)).length < FEWEST_LEVELS
    ? null
    : { ...draft, text, materials };
}
