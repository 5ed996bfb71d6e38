import { heaviness, minutes } from "../../shared/words";
import type { Layer } from "./stack";
import type { Material } from "./types";

/** How long until the next layer. */
export const waitWords = (n: number) => (n === 0 ? "at once" : minutes(n));

/** A word as it begins a line. */
export const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/** What a layer is laid with. */
export function paintWords(layer: Layer, byId: Map<string, Material>): string {
  if (layer.technique === "chip through" || layer.technique === "rub back") return "takes away";
  if (layer.paint.length === 0) return "no material";
  const names = layer.paint.map((p) => byId.get(p.materialId)?.name ?? "removed material");
  return names.length === 1 ? names[0]! : names.join(" + ");
}

/** How it is laid: what differs from one neat coat of the usual heaviness everywhere is said. */
export function detailWords(layer: Layer, byId: Map<string, Material>): string {
  const words: string[] = [];
  if (layer.paint.length > 1) words.push(layer.paint.map((p) => p.parts).join(" : "));
  if (layer.dilution) {
    const thinner = byId.get(layer.dilution.thinnerId)?.name ?? "thinner";
    words.push(`${layer.dilution.paint} : ${layer.dilution.thinner} ${thinner}`);
  } else if (layer.paint.length > 0 && layer.technique !== "clean up excess") words.push("neat");
  if (layer.coats > 1) words.push(`${layer.coats} coats`);
  if (layer.strength !== 1) words.push(heaviness(layer.strength));
  if (layer.region !== "all") words.push(layer.fades ? `${layer.region}, fading` : layer.region);
  words.push(layer.tool);
  if (layer.details) words.push(`${layer.details} on a piece`);
  if (layer.preparation && layer.preparation !== "none") words.push(layer.preparation);
  if (layer.markMm) words.push(`${layer.markMm} mm wide`);
  if (layer.varied) words.push(`varied, plan ${layer.varied.seed}`);
  if (layer.drying === "hot air") words.push("hot air");
  if (layer.optional) words.push("optional");
  if (layer.note) words.push(layer.note);
  return words.join(" · ");
}
