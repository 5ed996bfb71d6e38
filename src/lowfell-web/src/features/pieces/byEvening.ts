import type { Schema } from "../../api/client";

type Event = Schema["StoryEvent"];

/** What happened, put together by evenings; both stay in the order in which they come. */
export function byEvening(events: readonly Event[]): { day: string; events: Event[] }[] {
  const found: { day: string; events: Event[] }[] = [];
  for (const e of events) {
    if (found.at(-1)?.day !== e.session) found.push({ day: e.session, events: [] });
    found.at(-1)!.events.push(e);
  }
  return found;
}

/** "Fri 20 Nov 2026", of a day that is written 2026-11-20. */
export const dayWords = (day: string) =>
  new Date(`${day}T12:00:00`).toLocaleDateString("en-GB", {
    weekday: "short",
    day: "numeric",
    month: "short",
    year: "numeric",
  });

/** The clock of the workshop. */
export const clockIn = (at: string, timeZone: string) =>
  new Date(at).toLocaleTimeString("en-GB", { timeZone, hour: "2-digit", minute: "2-digit" });
