import type { Schema } from "../../api/client";
import type { Entry } from "./types";

/** An evening at the bench, newest first, with what happened in it. */
export type Evening = {
  day: string;
  entries: Entry[];
  marks: Schema["LogMarks"][];
  minutes: number;
  painters: string[];
};

const begun = (day: string): Evening => ({ day, entries: [], marks: [], minutes: 0, painters: [] });

/**
 * What happened, and what came out otherwise than planned, put together by evenings; each stays in the order in which it comes. An evening
 * on which something was only noted is one too.
 */
export function evenings(entries: readonly Entry[], marks: readonly Schema["LogMarks"][] = []): Evening[] {
  const found: Evening[] = [];
  for (const e of entries) {
    let at = found.at(-1);
    if (at?.day !== e.session) found.push((at = begun(e.session)));
    at.entries.push(e);
    if (!e.takenBack && e.counts) at.minutes += e.minutes ?? 0;
    if (!at.painters.includes(e.painter)) at.painters.push(e.painter);
  }
  for (const m of marks) {
    let at = found.find((e) => e.day === m.session);
    if (!at) {
      const later = found.findIndex((e) => e.day < m.session);
      found.splice(later < 0 ? found.length : later, 0, (at = begun(m.session)));
    }
    at.marks.push(m);
  }
  return found;
}

const kinds: Partial<Record<Entry["kind"], string>> = {
  given: "laid",
  made: "mixed",
  "touched dry": "dry to the touch",
  "split off": "poured apart",
  joined: "poured together",
  accepted: "let be",
  skipped: "left out",
};

/** What happened, in a word or two. */
export const kindWords = (kind: Entry["kind"]) => kinds[kind] ?? kind;

/** "Friday 20 November", of a day that is written 2026-11-20. */
export const dayWords = (day: string) =>
  new Date(`${day}T12:00:00`).toLocaleDateString("en-GB", {
    weekday: "long",
    day: "numeric",
    month: "long",
    year: "numeric",
  });

/** The air of an evening: 16.8–19.2 °C, 55–61 %. */
export function airOf(air: Schema["EveningAir"]) {
  const span = (low: string, high: string) => (low === high ? low : `${low}–${high}`);
  const share = (humidity: number) => String(Math.round(humidity * 100));
  return `${span(air.lowC.toFixed(1), air.highC.toFixed(1))} °C, ${span(share(air.lowHumidity), share(air.highHumidity))} %`;
}

/** The clock of the workshop. */
export const clockIn = (at: string, timeZone: string) =>
  new Date(at).toLocaleTimeString("en-GB", { timeZone, hour: "2-digit", minute: "2-digit" });

/** By how much something takes longer or shorter than reckoned: "a third longer". */
export function factorWords(factor: number): string {
  if (Math.abs(factor - 1) < 0.03) return "as reckoned";
  return factor > 1
    ? `${Math.round((factor - 1) * 100)} % longer`
    : `${Math.round((1 - factor) * 100)} % shorter`;
}
