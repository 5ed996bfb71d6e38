import type { BenchEvent, Piece, Reading, Task, Wet } from "./types";
import { after, coated, touches, zoneNames, zonesOf } from "./zones";

/** What the bench is, with what happened here and is still on its way. */
export type Bench = { tasks: Task[]; wet: Wet[]; steps: Step[] };

/** Something that can be taken back. */
export type Step = { id: string; kind: string; words: string; mine: boolean };

const MINUTE = 60_000;

/** Whether something on a zone is of an event there. */
const isOf = (w: { zoneId: string; layerId: string }, e: BenchEvent) =>
  [{ zoneId: e.zoneId, layerId: e.layerId }, ...(e.also ?? [])].some(
    (t) => t.zoneId === w.zoneId && t.layerId === w.layerId,
  );

/**
 * Puts what the server does not know yet on top of what it said. Instants of this device are moved by how far its clock was off, so that
 * they stand beside those of others.
 */
export function fold(reading: Reading, queued: readonly BenchEvent[]): Bench {
  // One that is answered for and still in the queue is the same.
  const mine = queued.filter(
    (e, i) => e.number > reading.lastNumber && queued.findIndex((o) => o.id === e.id) === i,
  );
  const undone = new Set(mine.flatMap((e) => (e.undoesId ? [e.undoesId] : [])));
  const laid = mine.filter((e) => e.kind !== "taken back" && !undone.has(e.id));
  let tasks = reading.tasks;
  let wet = reading.wet.filter((w) => !undone.has(w.eventId));
  for (const e of laid) {
    const at = new Date(Date.parse(e.toldAt) + (e.offsetMs ?? 0));
    const pieces = new Set(e.pieceIds);
    const change = (how: (piece: Piece) => Piece | null) => {
      tasks = tasks.map((t) =>
        !t.beforehand && touches(t, e)
          ? { ...t, pieces: t.pieces.flatMap((p) => (pieces.has(p.id) ? (how(p) ?? []) : p)) }
          : t,
      );
    };
    const lay = (how: (task: Task, piece: Piece) => Piece | null) => {
      tasks = tasks.flatMap((t) => (t.beforehand ? t : after(t, e, (p) => how(t, p))));
    };
    if (e.kind === "made" || e.kind === "topped up") tasks = tasks.map((t) => withPot(t, e));
    else if (e.kind === "begun") change((p) => ({ ...p, state: "begun", begunAt: at.toISOString() }));
    else if (e.kind === "paused") change((p) => ({ ...p, state: "paused" }));
    else if (e.kind === "skipped") lay(() => null);
    else if (e.kind === "given") {
      // A coat onto another of the same layer is what is wet there.
      wet = wet.filter((w) => !(isOf(w, e) && pieces.has(w.pieceId)));
      for (const task of tasks.filter((t) => !t.beforehand && touches(t, e)))
        wet = [...wet, ...task.pieces.filter((p) => pieces.has(p.id)).flatMap((p) => wetOf(task, p, e, at))];
      lay((task, p) => coated(task, p, e.coats));
    } else if (e.kind === "wiped") {
      const off = wet.filter((w) => isOf(w, e) && pieces.has(w.pieceId));
      wet = wet.filter((w) => !off.includes(w));
      tasks = tasks.map((t) =>
        !t.beforehand && touches(t, e)
          ? {
              ...t,
              pieces: [
                ...off
                  .filter((w, i) => off.findIndex((o) => o.pieceId === w.pieceId) === i)
                  .filter((w) => t.pieces.every((p) => p.id !== w.pieceId))
                  .map((w): Piece => ({
                    id: w.pieceId,
                    label: w.piece,
                    state: "open",
                    begunAt: null,
                    planned: "",
                    coats: 0,
                  })),
                ...t.pieces.map((p): Piece =>
                  pieces.has(p.id) ? { ...p, state: "open", begunAt: null, coats: 0 } : p,
                ),
              ],
            }
          : t,
      );
    }
  }
  const told = laid.map((e): Step => ({ id: e.id, kind: e.kind, words: stepWords(reading, e), mine: true }));
  return {
    tasks: tasks.filter((t) => t.pieces.length > 0),
    wet,
    steps: [
      ...told.reverse(),
      ...reading.steps
        .filter((s) => !undone.has(s.eventId))
        .map((s) => ({ id: s.eventId, kind: s.kind, words: s.words, mine: s.mine })),
    ],
  };
}

/** A mix with what was filled into a pot of it here. */
function withPot(task: Task, e: BenchEvent): Task {
  const { mix } = task;
  if (!mix || (e.kind === "made" ? mix.key !== e.recipeKey : !mix.pots.some((p) => p.id === e.potId)))
    return task;
  const unit = (id: string) => mix.parts.find((p) => p.materialId === id)?.unitMl ?? 0;
  const filled = (e.amounts ?? []).reduce((sum, a) => sum + (a.ml ?? (a.drops ?? 0) * unit(a.materialId)), 0);
  const pots =
    e.kind === "made"
      ? [{ id: e.potId!, label: e.label ?? "", ml: filled }, ...mix.pots]
      : mix.pots.map((p) => (p.id === e.potId ? { ...p, ml: p.ml + filled } : p));
  return { ...task, mix: { ...mix, pots } };
}

/** A piece of a task that something was just laid on: wet on every zone that it was laid on. */
function wetOf(task: Task, piece: Piece, e: BenchEvent, at: Date): Wet[] {
  const later = (minutes: number) => new Date(at.getTime() + minutes * MINUTE).toISOString();
  const window = coated(task, piece, e.coats) === null ? task.window : null;
  return zonesOf(task)
    .filter((z) => isOf(z, e))
    .map((z) => ({
      zoneId: z.zoneId,
      layerId: z.layerId,
      pieceId: piece.id,
      eventId: e.id,
      design: task.design,
      zone: z.zone,
      piece: piece.label,
      technique: task.technique,
      colour: z.colour,
      doneAt: at.toISOString(),
      touchAt: later(task.wetMinutes),
      readyAt: later(window || !e.coats ? task.readyMinutes : task.wetMinutes),
      closes: window?.what ?? null,
      opensAt: window ? later(window.opensMinutes) : null,
      closesAt: window ? later(window.closesMinutes) : null,
    }));
}

function stepWords(reading: Reading, e: BenchEvent) {
  const task = reading.tasks.find((t) => touches(t, e));
  const out = new Set(task && zonesOf(task).flatMap((z) => (isOf(z, e) ? [] : [z.zoneId])));
  const labels = (e.pieceIds ?? []).map(
    (id) =>
      task?.pieces.find((p) => p.id === id)?.label ?? reading.wet.find((w) => w.pieceId === id)?.piece ?? "",
  );
  if (e.kind === "made" || e.kind === "topped up")
    return (
      e.label ||
      reading.tasks.flatMap((t) => t.mix?.pots ?? []).find((p) => p.id === e.potId)?.label ||
      "a pot"
    );
  return [task && `${zoneNames(task, out)} on ${task.design}`, labels.join(" "), e.note]
    .filter(Boolean)
    .join(", ");
}

/** Pieces of one design and layer that were laid at about the same time, as one row of the line; "zone" names all that it was laid on. */
export type Row = Wet & { pieces: string[]; zones: Pick<Wet, "zoneId" | "layerId" | "zone">[] };

const TOGETHER_MS = 5 * MINUTE;

export function rows(wet: readonly Wet[]): Row[] {
  const found: Row[] = [];
  for (const w of wet) {
    const isHere = (z: { zoneId: string; layerId: string }) =>
      z.zoneId === w.zoneId && z.layerId === w.layerId;
    const row = found.find(
      (r) =>
        (r.eventId === w.eventId || r.zones.some(isHere)) &&
        Math.abs(Date.parse(r.doneAt) - Date.parse(w.doneAt)) <= TOGETHER_MS,
    );
    if (!row) {
      found.push({ ...w, pieces: [w.piece], zones: [w] });
      continue;
    }
    if (!row.pieces.includes(w.piece)) row.pieces.push(w.piece);
    if (!row.zones.some(isHere)) {
      row.zones.push(w);
      row.zone = row.zones.map((z) => z.zone).join(", ");
      // One layer is ready where the last of its zones is, and late where the first is.
      row.touchAt = row.touchAt > w.touchAt ? row.touchAt : w.touchAt;
      row.readyAt = row.readyAt > w.readyAt ? row.readyAt : w.readyAt;
      if (w.closesAt && (!row.closesAt || w.closesAt < row.closesAt))
        Object.assign(row, { closes: w.closes, opensAt: w.opensAt, closesAt: w.closesAt });
    }
  }
  return found;
}

export type Door = { row: Row; closes: string; opensIn: number; closesIn: number };

/** Windows that are about to close, the nearest first; minutes from now. One that has closed is shown for a while still. */
export const doors = (all: readonly Row[], now: number): Door[] =>
  all
    .flatMap((row) => {
      if (!row.closesAt || !row.closes) return [];
      const into = (at: string) => (Date.parse(at) - now) / MINUTE;
      return [
        { row, closes: row.closes, opensIn: into(row.opensAt ?? row.doneAt), closesIn: into(row.closesAt) },
      ];
    })
    .filter((d) => d.closesIn > -CLOSED_SHOWN_MIN && d.closesIn < SOON_MIN)
    .sort((a, b) => a.closesIn - b.closesIn);

const SOON_MIN = 8 * 60,
  CLOSED_SHOWN_MIN = 30;

/** A window closes loudly from here on, minutes. */
export const LOUD_MIN = 30;

/** A timer that ran longer than so many times the estimate was left running: it asks before it counts. */
const LEFT_RUNNING = 2;

/**
 * Minutes since hands came onto these pieces, when that is so long that nobody knows whether they were on it; null when it may count
 * as it is.
 */
export function leftRunning(task: Task, pieces: readonly Piece[], now: number): number | null {
  const begun = pieces.flatMap((p) => (p.state === "begun" && p.begunAt ? [Date.parse(p.begunAt)] : []));
  if (begun.length === 0) return null;
  const ran = (now - Math.min(...begun)) / MINUTE;
  return ran > LEFT_RUNNING * Math.max(1, task.minutesEach * pieces.length) ? ran : null;
}
