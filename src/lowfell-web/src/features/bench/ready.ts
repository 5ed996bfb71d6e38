import { labelsOf } from "../../shared/labels";
import { clockAt } from "./says";
import type { Piece, Task, Wet } from "./types";
import { targets } from "./zones";

/** Pieces on which what lies below is not ready for what is to be laid, and from when it is. */
export type NotReady = { pieces: Piece[]; technique: string; readyAt: number; keys: string[] };

/** Whether something has to be done while the other is still open: cleaning up a wash, pressing in, chipping. */
const isInTime = (wet: Wet, task: Task, now: number) =>
  wet.closes === task.technique &&
  (!wet.opensAt || Date.parse(wet.opensAt) <= now) &&
  (!wet.closesAt || now <= Date.parse(wet.closesAt));

/** What lies below and is not ready, of what has not been asked about; what is ready latest first. */
export function notReady(
  task: Task,
  pieces: readonly Piece[],
  wet: readonly Wet[],
  now: number,
  asked: ReadonlySet<string>,
): NotReady[] {
  const found: NotReady[] = [];
  for (const piece of pieces) {
    const below = wet
      .filter(
        (w) =>
          targets(task).some((t) => t.zoneId === w.zoneId) &&
          w.pieceId === piece.id &&
          Date.parse(w.readyAt) > now,
      )
      .filter((w) => !isInTime(w, task, now) && !asked.has(`${w.eventId} ${piece.id}`))
      .sort((a, b) => b.readyAt.localeCompare(a.readyAt))[0];
    if (!below) continue;
    const readyAt = Date.parse(below.readyAt);
    const same = found.find((f) => f.technique === below.technique && f.readyAt === readyAt);
    const key = `${below.eventId} ${piece.id}`;
    if (same) {
      same.pieces.push(piece);
      same.keys.push(key);
    } else found.push({ pieces: [piece], technique: below.technique, readyAt, keys: [key] });
  }
  return found.sort((a, b) => b.readyAt - a.readyAt);
}

/** The answer as the log keeps it. */
export const factOf = (below: readonly NotReady[]) =>
  below
    .map(
      (n) =>
        `laid on ${labelsOf(n.pieces.map((p) => p.label))} before ${n.technique} was ready, from ${clockAt(n.readyAt)}`,
    )
    .join("; ")
    .slice(0, 500);
