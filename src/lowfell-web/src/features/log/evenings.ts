import type { Schema } from "../../api/client";
import type { Entry } from "./types";

type LogMarks = Schema["LogMarks"];

/** What is told of an evening: something that happened, or marks that came out otherwise than planned. */
export type Line = { entry: Entry; marks?: undefined } | { marks: LogMarks; entry?: undefined };

/** An evening at the bench, newest first, with what happened in it. */
export type Evening = { day: string; lines: Line[]; minutes: number; painters: string[] };

const begun = (day: string): Evening => ({ day, lines: [], minutes: 0, painters: [] });
const when = (line: Line) => Date.parse((line.entry ?? line.marks).at);

/**
 * What happened, put together by evenings in the order in which it comes; what came out otherwise than planned stands where its time is. An
 * evening on which something was only noted is one too.
 */
export function evenings(entries: readonly Entry[], marks: readonly LogMarks[] = []): Evening[] {
  const found: Evening[] = [];
  for (const entry of entries) {
    let at = found.at(-1);
    if (at?.day !== entry.session) found.push((at = begun(entry.session)));
    at.lines.push({ entry });
    if (!entry.takenBack && entry.counts) at.minutes += entry.minutes ?? 0;
    if (!at.painters.includes(entry.painter)) at.painters.push(entry.painter);
  }
  for (const m of marks) {
    let at = found.find((e) => e.day === m.session);
    if (!at) put(found, (at = begun(m.session)), (e) => e.day < m.session);
    put(at.lines, { marks: m }, (line) => when(line) < Date.parse(m.at));
  }
  return found;
}

/** Puts something before the first that is earlier. */
function put<T>(into: T[], what: T, earlier: (of: T) => boolean) {
  const at = into.findIndex(earlier);
  into.splice(at < 0 ? into.length : at, 0, what);
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
