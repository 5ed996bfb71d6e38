import type { Layer } from "./stack";

/**
 * The layers that one which takes away may break, the nearest first: those above the chipping fluid for a chip, all below for a rub.
 * Null for a layer that only adds.
 */
export function breakable(layers: readonly Layer[], layer: Layer): Layer[] | null {
  if (layer.technique !== "chip through" && layer.technique !== "rub back") return null;
  const at = layers.findIndex((l) => l.id === layer.id);
  const below = layers.slice(0, at).reverse();
  const fluid =
    layer.technique === "chip through" ? below.findIndex((l) => l.technique === "chipping fluid") : -1;
  return (fluid < 0 ? below : below.slice(0, fluid)).filter((l) => l.paint.length > 0);
}

/** How many layers lie below the lowest that a chip breaks; undefined for any other layer, and for one that finds nothing to break. */
export function breaksTo(layers: readonly Layer[], layer: Layer): number | undefined {
  if (layer.technique !== "chip through") return undefined;
  const broken = breakable(layers, layer)!;
  // Without a fluid nothing comes off.
  if (broken.length === 0 || !layers.some((l) => l.technique === "chipping fluid")) return undefined;
  const named = broken.find((l) => l.id === layer.downTo) ?? broken.at(-1)!;
  return layers.indexOf(named);
}
