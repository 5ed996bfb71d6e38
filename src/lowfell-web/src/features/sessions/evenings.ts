import type { Schema } from "../../api/client";

export type Plan = Schema["SessionsReading"];
export type Session = Schema["PlannedSession"];
export type Operation = Schema["PlannedOperation"];

const MINUTE = 60_000;

/** Minutes from the beginning of a session. */
export const into = (session: Pick<Session, "start">, at: string) =>
  (Date.parse(at) - Date.parse(session.start)) / MINUTE;

/** As long as the longest session, so that a minute is as wide in all of them. */
export const longest = (sessions: readonly Session[]) => Math.max(1, ...sessions.map((s) => into(s, s.end)));

/** Nights that lie between two sessions, by the clock of the workshop. */
export function nights(before: Pick<Session, "end">, after: Pick<Session, "start">): number {
  const day = (at: string) => Date.parse(`${at.slice(0, 10)}T12:00:00Z`);
  return Math.round((day(after.start) - day(before.end)) / (24 * 60 * MINUTE));
}

export const nightWords = (n: number) =>
  n <= 0 ? "the same day" : n === 1 ? "one night" : n === 2 ? "two nights" : `${n} nights`;

/** The time on the wall of the workshop, as the server has written it. */
export const clock = (at: string) => at.slice(11, 16);

export const day = (at: string) =>
  new Date(`${at.slice(0, 10)}T12:00:00Z`).toLocaleDateString("en-GB", {
    weekday: "short",
    day: "numeric",
    month: "short",
    timeZone: "UTC",
  });

/** "W1–W4", "W1, W3", or all of them in one word. */
export function pieceWords(o: Pick<Operation, "pieces" | "ofPieces">): string {
  if (o.pieces.length === o.ofPieces) return o.ofPieces === 1 ? o.pieces[0]! : `all ${o.ofPieces}`;
  if (o.pieces.length <= 2) return o.pieces.join(", ");
  return `${o.pieces[0]} to ${o.pieces.at(-1)}, ${o.pieces.length} of ${o.ofPieces}`;
}

/** What dries longest after a session's work, so many at most, in the order they were laid. */
export const drying = (session: Session, most: number) =>
  [...session.operations]
    .filter((o) => o.wetMinutes >= 20)
    .sort((a, b) => b.wetMinutes - a.wetMinutes)
    .slice(0, most)
    .sort((a, b) => a.start.localeCompare(b.start));

/** Whose hands are at work in a session, from the first painter to the last. */
export const hands = (session: Session) =>
  [...new Set(session.operations.map((o) => o.painter))].sort((a, b) => a - b);

/** Initials where there are some. */
export const painterWords = (plan: Pick<Plan, "painters">, painter: number) =>
  plan.painters[painter] ?? `painter ${painter + 1}`;

/** The session before or after the one an operation lies in; null where there is none. */
export function neighbour(plan: Pick<Plan, "sessions">, o: Operation, by: -1 | 1): Session | null {
  const at = plan.sessions.findIndex((s) => s.operations.some((x) => x.id === o.id));
  return plan.sessions[at + by] ?? null;
}

/** What an operation is, whatever plan it is in. */
export const keyOf = (o: Pick<Operation, "zoneId" | "layerId" | "pieceId" | "beforehand">) =>
  `${o.zoneId} ${o.layerId} ${o.pieceId}${o.beforehand ? " beforehand" : ""}`;

export type Point = { x: number; y: number };

/** The line through what binds: along the foot of each, down the night between, and over to the next. */
export function chainPath(feet: readonly { from: Point; to: Point; gap: number }[]): string {
  return feet
    .map((f, i) => {
      const before = feet[i - 1];
      const along = `L${f.from.x} ${f.from.y}L${f.to.x} ${f.to.y}`;
      if (!before) return `M${f.from.x} ${f.from.y}L${f.to.x} ${f.to.y}`;
      return before.gap === f.gap
        ? `L${before.to.x} ${f.from.y}${along}`
        : `L${before.to.x} ${before.gap}L${f.from.x} ${before.gap}${along}`;
    })
    .join("");
}

/** How likely, as a painter says it. */
export const inHundred = (share: number) =>
  share <= 0 ? "no chance" : share >= 1 ? "as good as certain" : `${Math.round(share * 100)} in 100`;

/** Work is said in hours: nobody paints for days on end. */
export const workWords = (n: number) =>
  n < 90 ? `${Math.round(n)} min` : `${n < 600 ? Math.round(n / 6) / 10 : Math.round(n / 60)} h`;
