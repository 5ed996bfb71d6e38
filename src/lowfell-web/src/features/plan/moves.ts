import type { Layer } from "./stack";

// What is done to a stack by hand; layers are bottom first.

/** With a layer put in above another, or on top where there is none of that id. */
export function putAbove(stack: readonly Layer[], id: string | null, layer: Layer): Layer[] {
  const at = stack.findIndex((l) => l.id === id);
  const to = at < 0 ? stack.length : at + 1;
  return [...stack.slice(0, to), layer, ...stack.slice(to)];
}

/** Without a layer, and which one is in hand then. */
export function without(stack: readonly Layer[], id: string): { layers: Layer[]; near: string | null } {
  const at = stack.findIndex((l) => l.id === id);
  const layers = stack.filter((l) => l.id !== id);
  return { layers, near: layers[Math.min(at, layers.length - 1)]?.id ?? null };
}

/** With a layer left out; a pin wash takes its clean-up with it. */
export function leftOut(stack: readonly Layer[], id: string): Layer[] {
  const at = stack.findIndex((l) => l.id === id);
  const cleaned = stack[at]?.technique === "pin wash" && stack[at + 1]?.technique === "clean up excess";
  return stack.filter((_, i) => i !== at && !(cleaned && i === at + 1));
}

/** With a layer moved up or down; null where it cannot go further. */
export function moved(stack: readonly Layer[], id: string, by: number): Layer[] | null {
  const at = stack.findIndex((l) => l.id === id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= stack.length) return null;
  const next = [...stack];
  const [layer] = next.splice(at, 1);
  next.splice(to, 0, layer!);
  return next;
}
