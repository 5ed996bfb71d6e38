import type { Schema } from "../../api/client";
import { same, type Layer } from "./stack";

type Sheet = Pick<Schema["ZoneSheet"], "surfaceId" | "surfaces" | "over">;

/** Whom an edit of a surface is for: it alone, or wherever the layers that were edited lie. */
export type Scope = Schema["Scope"];

/** The other surfaces that a layer goes over, by name; details that stand on this one go with it. */
export function alsoOver(sheet: Sheet, layerId: string): string[] {
  const over = sheet.over.find((o) => o.layerId === layerId)?.surfaces ?? [];
  return sheet.surfaces
    .filter((s) => s.id !== sheet.surfaceId && s.onId !== sheet.surfaceId && over.includes(s.id))
    .map((s) => s.name);
}

/** Where else an edit could be for, by name: layers that lie there too were changed, moved or taken out. */
export function concerned(sheet: Sheet, before: readonly Layer[], next: readonly Layer[]): string[] {
  const now = new Map(next.map((l) => [l.id, l]));
  const stays = (l: Layer) => now.has(l.id);
  const ids = (stack: readonly Layer[], other: ReadonlyMap<string, unknown>) =>
    stack.flatMap((l) => (other.has(l.id) ? [l.id] : []));
  const was = new Map(before.map((l) => [l.id, l]));
  const moved = !same(ids(before, now), ids(next, was));
  const touched = before.filter((l) => !stays(l) || moved || !same(l, now.get(l.id)));
  const names = touched.flatMap((l) => alsoOver(sheet, l.id));
  return sheet.surfaces.map((s) => s.name).filter((n) => names.includes(n));
}
