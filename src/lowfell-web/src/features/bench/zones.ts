import type { BenchEvent, Piece, Task, Wet } from "./types";

/** A layer on a zone, by its line there. */
export type On = { zoneId: string; layerId: string };

/** Everywhere a task's layer goes. A reading that was kept by an older page knows of one zone only. */
export const targets = (task: Task): On[] => [task, ...((task.also as Task["also"] | undefined) ?? [])];

const targetsOf = (e: Partial<On> & Pick<BenchEvent, "also">): On[] =>
  e.zoneId && e.layerId ? [{ zoneId: e.zoneId, layerId: e.layerId }, ...(e.also ?? [])] : [];

const isAmong = (on: On, all: readonly On[]) =>
  all.some((o) => o.zoneId === on.zoneId && o.layerId === on.layerId);

/** Whether an event is of a task, wholly or on some of its zones. */
export const touches = (task: Task, e: Partial<On> & Pick<BenchEvent, "also">) =>
  targets(task).some((t) => isAmong(t, targetsOf(e)));

/** "Brick, Coping": the zones of a task, those that were taken out left out. */
export const zoneNames = (task: Task, out: ReadonlySet<string> = new Set()) =>
  zonesOf(task)
    .filter((z) => !out.has(z.zoneId))
    .map((z) => z.zone)
    .join(", ");

/** The zones of a task as they are shown: name, colour, and what is different there. */
export const zonesOf = (task: Task): Task["also"] => [
  { zoneId: task.zoneId, layerId: task.layerId, zone: task.zone, colour: task.colour, different: "" },
  ...((task.also as Task["also"] | undefined) ?? []),
];

/** What is told of a task: where, with those zones left out that were taken out, and the layer as it was seen. */
export function toldOf(task: Task, out: ReadonlySet<string>, pieces: readonly Piece[]) {
  const [first, ...also] = targets(task).filter((t) => !out.has(t.zoneId));
  return {
    zoneId: first!.zoneId,
    layerId: first!.layerId,
    seenId: task.seenId,
    ...(also.length > 0 ? { also: also.map(({ zoneId, layerId }) => ({ zoneId, layerId })) } : {}),
    pieceIds: pieces.map((p) => p.id),
  };
}

/** A task on some of its zones. */
function only(task: Task, zones: readonly On[]): Task {
  const [first, ...also] = zonesOf(task).filter((z) => isAmong(z, zones));
  return {
    ...task,
    zoneId: first!.zoneId,
    layerId: first!.layerId,
    zone: first!.zone,
    colour: first!.colour,
    also,
  };
}

/**
 * What is left of a task once something was done to some of its pieces on some of its zones: the other pieces, what is left of these there,
 * and the zones that were taken out.
 */
export function after(
  task: Task,
  e: Partial<On> & Pick<BenchEvent, "also" | "pieceIds">,
  how: (p: Piece) => Piece | null,
): Task[] {
  const all = targets(task);
  const hit = all.filter((t) => isAmong(t, targetsOf(e)));
  const pieces = new Set(e.pieceIds);
  if (hit.length === 0) return [task];
  if (hit.length === all.length)
    return [{ ...task, pieces: task.pieces.flatMap((p) => (pieces.has(p.id) ? (how(p) ?? []) : p)) }];
  const its = task.pieces.filter((p) => pieces.has(p.id));
  return [
    { ...task, pieces: task.pieces.filter((p) => !pieces.has(p.id)) },
    { ...only(task, hit), pieces: its.flatMap((p) => how(p) ?? []) },
    {
      ...only(
        task,
        all.filter((t) => !hit.includes(t)),
      ),
      pieces: its,
    },
  ].filter((t) => t.pieces.length > 0);
}

/** A piece after some coats of a task were laid on it, all that are left where nobody counted; null once it has all of them. */
export const coated = (task: Task, piece: Piece, coats: number | undefined): Piece | null => {
  const has = (piece.coats || 0) + (coats ?? Infinity);
  return has >= (task.coats || 1) ? null : { ...piece, state: "partly", begunAt: null, coats: has };
};

/** Pieces that are as far as one of them: what the next coat goes onto. */
export const asFar = (task: Task, piece: Piece) =>
  task.pieces.filter((p) => (p.coats || 0) === (piece.coats || 0));

/** Where what is wet of one event lies, each zone and each piece once. */
export function onWet(wet: readonly Wet[]) {
  const zones = wet.filter((w, i) => wet.findIndex((o) => o.zoneId === w.zoneId) === i);
  return {
    zoneId: zones[0]!.zoneId,
    layerId: zones[0]!.layerId,
    ...(zones.length > 1 ? { also: zones.slice(1).map(({ zoneId, layerId }) => ({ zoneId, layerId })) } : {}),
    pieceIds: [...new Set(wet.map((w) => w.pieceId))],
  };
}

export const labelsWet = (wet: readonly Wet[]) => [...new Set(wet.map((w) => w.piece))];
