import { z } from "zod";
import { readFigure, readScale, sayFigure, type Figure, type Unit } from "./figures";

// The strict content policy forbids code made from text.
z.config({ jitless: true });

export { z };

type Limits = {
  /** What to call it in a sentence. */
  name: string;
  least?: number;
  most?: number;
  /** Greater than nothing at all. */
  above?: number;
  whole?: boolean;
};

const is = (name: string) => (/(edges|joints|coats.*)$/.test(name) ? "are" : "is");

/** What is wrong with a number that was read well enough. */
function outside(n: number, unit: Unit, l: Limits): string | null {
  if (l.whole && !Number.isInteger(n)) return `${l.name} ${is(l.name)} a whole number.`;
  if (l.above !== undefined && n <= l.above)
    return `${l.name} ${is(l.name)} more than ${sayFigure(l.above, unit)}.`;
  if (l.least !== undefined && n < l.least)
    return `${l.name} ${is(l.name)} at least ${sayFigure(l.least, unit)}.`;
  if (l.most !== undefined && n > l.most)
    return `${l.name} ${is(l.name)} at most ${sayFigure(l.most, unit)}.`;
  return null;
}

const checked = (read: (text: string) => Figure, unit: Unit, limits: Limits, empty: string | null) =>
  z.string().transform((text, ctx): number | null => {
    const found = read(text);
    if (!found) {
      if (empty !== null) ctx.addIssue({ code: "custom", message: empty });
      return null;
    }
    const why = "fault" in found ? found.fault : outside(found.value, unit, limits);
    if (why !== null) ctx.addIssue({ code: "custom", message: why });
    return "fault" in found ? null : found.value;
  });

/** A figure that must be there. */
export const figure = (unit: Unit, limits: Limits) =>
  checked((t) => readFigure(t, unit), unit, limits, `${limits.name} ${is(limits.name)} missing.`).transform(
    (n) => n ?? 0,
  );

/** A figure that may be left out; nothing typed stays nothing. */
export const maybe = (unit: Unit, limits: Limits) => checked((t) => readFigure(t, unit), unit, limits, null);

/** A share, typed in per cent. */
export const percent = (limits: { name: string; least?: number; most?: number }) =>
  maybe("%", { least: 0, most: 100, ...limits }).transform((n) => (n === null ? null : n / 100));

/** The n of 1:n. */
export const scale = checked(
  readScale,
  "",
  { name: "The scale", least: 1, most: 1000, whole: true },
  "The scale is missing; write it as 1:56.",
).transform((n) => n ?? 0);

// Characters that show nothing, or turn round how the rest is read.
const unseen = /[\p{Cc}\p{Cf}\p{Zl}\p{Zp}]/u;

/** A name that can be seen. */
export const name = (what: string, most = 80) =>
  z
    .string()
    .trim()
    .min(1, `${what} is missing.`)
    .max(most, `${what} has at most ${most} characters.`)
    .refine((t) => !unseen.test(t), `${what} holds characters that cannot be seen.`);

/** Words that may be left out. */
export const words = (what: string, most = 500) =>
  z.string().trim().max(most, `${what} has at most ${most} characters.`);

/** A colour as hex; nothing typed stays nothing. */
export const colour = (what: string) =>
  z
    .string()
    .trim()
    .refine((t) => t === "" || /^#[0-9a-f]{6}$/i.test(t), `${what} is written as #6b4f2a.`)
    .transform((t) => t || null);
