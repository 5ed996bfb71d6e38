import type { Schema } from "../../api/client";

export type Layer = Schema["LayerDto"];
export type Edit = Schema["EditDto"];

/** The stack after a remedy's edits; layers are bottom first. */
export function apply(stack: readonly Layer[], edits: readonly Edit[]): Layer[] {
  const layers = [...stack];
  for (const edit of edits) {
    if (edit.op === "insert" && edit.layer)
      layers.splice(edit.at, 0, { ...edit.layer, id: crypto.randomUUID() });
    else if (edit.op === "remove") layers.splice(edit.at, 1);
    else if (edit.op === "replace" && edit.layer) {
      // A remedy knows nothing of notes; they stay with their layer.
      layers.splice(edit.at, 1, { ...edit.layer, note: layers[edit.at]?.note ?? "" });
    } else if (edit.op === "move" && edit.to != null) {
      const [moved] = layers.splice(edit.at, 1);
      if (moved) layers.splice(edit.to, 0, moved);
    }
  }
  return layers;
}

/** Whether two things say the same; quicker than comparing them in writing, and asked for every row at every step of a slider. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || !a || !b) return Number.isNaN(a) && Number.isNaN(b);
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>];
  // What is undefined counts as left out: it is not stored either.
  for (const key in left) if (!same(left[key], right[key])) return false;
  for (const key in right) if (right[key] !== undefined && left[key] === undefined) return false;
  return true;
}

/** One layer that two windows changed differently since they last agreed; null where it is gone. */
export type Clash = { id: string; mine: Layer | null; theirs: Layer | null };

/**
 * Brings two versions of a stack together. What only one side changed is taken from that side;
 * what both changed differently is a clash for the painter to settle.
 */
export function merge(base: readonly Layer[], mine: readonly Layer[], theirs: readonly Layer[]) {
  const by = (list: readonly Layer[]) => new Map(list.map((l) => [l.id, l]));
  const [b, m, t] = [by(base), by(mine), by(theirs)];
  const clashes: Clash[] = [];
  const settled = new Map<string, Layer | null>();
  for (const id of new Set([...m.keys(), ...t.keys()])) {
    const [was, my, their] = [b.get(id) ?? null, m.get(id) ?? null, t.get(id) ?? null];
    if (same(my, their) || same(their, was)) settled.set(id, my);
    else if (same(my, was)) settled.set(id, their);
    else {
      clashes.push({ id, mine: my, theirs: their });
      settled.set(id, my);
    }
  }
  const order = same(
    base.map((l) => l.id),
    mine.map((l) => l.id),
  )
    ? theirs
    : mine;
  const other = order === mine ? theirs : mine;
  const ids = order.map((l) => l.id);
  for (const [i, l] of other.entries()) if (!ids.includes(l.id)) ids.splice(Math.min(i, ids.length), 0, l.id);
  return { ids, settled, clashes };
}

/** The stack that results once every clash is settled. */
export function settle(
  merged: ReturnType<typeof merge>,
  choice: ReadonlyMap<string, "mine" | "theirs">,
): Layer[] {
  const settled = new Map(merged.settled);
  for (const c of merged.clashes) settled.set(c.id, choice.get(c.id) === "theirs" ? c.theirs : c.mine);
  return merged.ids.flatMap((id) => settled.get(id) ?? []);
}

/**
 * A stack carried over to what another window has stored since: theirs, with what was changed here on top of it. Null when both
 * changed the same layer, which is for the painter to settle.
 */
export function rebase(
  base: readonly Layer[],
  mine: readonly Layer[],
  theirs: readonly Layer[],
): Layer[] | null {
  const merged = merge(base, mine, theirs);
  return merged.clashes.length > 0 ? null : settle(merged, new Map());
}

/** Whether two stacks come to the same colours, remarks and amounts: notes are for people. */
export const alike = (a: readonly Layer[], b: readonly Layer[]) =>
  same(
    a.map((l) => ({ ...l, note: "" })),
    b.map((l) => ({ ...l, note: "" })),
  );
