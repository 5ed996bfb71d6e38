// Figures as people type them: a comma or a point, with or without a unit, in the unit that is at hand.

/** What a figure is in when nothing is said, and what else may be said, with how many of the first it is. */
const units = {
  ml: { ml: 1, cl: 10, dl: 100, l: 1000 },
  min: { min: 1, minutes: 1, minute: 1, h: 60, hours: 60, hour: 60, d: 1440, days: 1440, day: 1440 },
  mm: { mm: 1, cm: 10, m: 1000 },
  m: { m: 1, cm: 0.01, mm: 0.001 },
  "cm²": { "cm²": 1, "mm²": 0.01, "dm²": 100, "m²": 10_000 },
  "%": { "%": 1, percent: 1, "per cent": 1 },
  "°C": { "°c": 1, c: 1 },
  g: { g: 1, mg: 0.001, kg: 1000 },
  "g/ml": { "g/ml": 1 },
  drops: { drops: 1, drop: 1 },
  coats: { coats: 1, coat: 1 },
  "": {},
} as const satisfies Record<string, Record<string, number>>;

export type Unit = keyof typeof units;

/** A figure, why what was typed is none, or null where nothing was typed. */
export type Figure = { value: number } | { fault: string } | null;

const NUMBER = String.raw`[-−+]?(?:\d+(?:[.,]\d+)?|[.,]\d+)`;
const part = new RegExp(`^(${NUMBER})\\s*([^\\d.,+−-]*)`, "u");

const plain = (text: string) => Number(text.replace(",", ".").replace("−", "-"));

/** What is read too, but never stands for the unit that was left out: there is no half of an inch in "1 m 30". */
const inches: Partial<Record<Unit, Record<string, number>>> = {
  mm: { in: 25.4, inch: 25.4, inches: 25.4 },
  m: { in: 0.0254, inch: 0.0254, inches: 0.0254 },
  "cm²": { "in²": 6.4516 },
};

/** Something that can be typed, as an example. */
const examples: Partial<Record<Unit, string>> = {
  ml: "12 ml",
  min: "45 min, 1 h 30 or 2 days",
  mm: "120 mm or 12 cm",
  m: "0.9 m or 90 cm",
  "cm²": "40 cm² or 0.4 dm²",
  "%": "35 %",
};

/** Reads a figure with its unit, such as "12 ml", "1 h 30", "2,50" or "35 %". A bare number is in the unit given. */
export function readFigure(text: string, unit: Unit): Figure {
  let rest = text
    .trim()
    .replace(/\s+/gu, " ")
    .replace(/(\p{L})2/gu, "$1²");
  if (rest === "") return null;
  const known: Record<string, number> = units[unit];
  let sum = 0,
    last: number | null = null;
  while (rest !== "") {
    const found = part.exec(rest);
    if (!found) return { fault: notRead(text, unit) };
    const word = found[2]!.trim().toLowerCase();
    // The half hour of "1 h 30" is in the next smaller unit that has a name here.
    const factor: number | undefined =
      word !== ""
        ? (known[word] ?? inches[unit]?.[word])
        : last === null
          ? 1
          : Object.values(known).includes(last)
            ? smaller(Object.values(known), last)
            : undefined;
    if (factor === undefined || (last !== null && factor >= last))
      return {
        fault: word !== "" && factor === undefined ? wrongUnit(found[2]!.trim(), unit) : notRead(text, unit),
      };
    sum += plain(found[1]!) * factor;
    last = factor;
    rest = rest.slice(found[0].length).trim();
  }
  return Number.isFinite(sum) ? { value: exact(sum) } : { fault: notRead(text, unit) };
}

const smaller = (all: number[], than: number) => all.filter((f) => f < than).sort((a, b) => b - a)[0];

/** Rid of what binary fractions add: 0.1 + 0.2 is 0.3. */
const exact = (n: number) => Number(n.toPrecision(12));

function notRead(text: string, unit: Unit) {
  const such = examples[unit] ?? (unit ? `2.5 ${unit}` : "2.5");
  return `“${text.trim()}” is not a figure. Write it as ${such}.`;
}

function wrongUnit(word: string, unit: Unit) {
  const all = Object.keys(units[unit]);
  return all.length === 0
    ? `Leave out “${word}”: only a number stands here.`
    : `“${word}” does not fit here. It can be ${list(all)}.`;
}

const list = (words: string[]) =>
  words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} or ${words.at(-1)}`;

/** A figure as it stands in a field: with its unit, and no more digits than it has. */
export function sayFigure(value: number | null | undefined, unit: Unit): string {
  if (value == null) return "";
  if (unit === "min") return sayMinutes(value);
  return unit === "" ? String(exact(value)) : `${exact(value)} ${unit}`;
}

function sayMinutes(minutes: number) {
  if (minutes < 60 || minutes % 1 !== 0) return `${exact(minutes)} min`;
  if (minutes >= 2880 && minutes % 1440 === 0) return `${minutes / 1440} days`;
  const [h, min] = [Math.floor(minutes / 60), minutes % 60];
  return min === 0 ? `${h} h` : `${h} h ${min} min`;
}

/** Reads the n of 1:n from "1:56", "1/56" or "56". */
export function readScale(text: string): Figure {
  const bare = text.trim();
  if (bare === "") return null;
  const found = /^(?:1\s*[:/]\s*)?(\d+(?:[.,]\d+)?)$/.exec(bare);
  return found ? { value: plain(found[1]!) } : { fault: `“${bare}” is not a scale. Write it as 1:56.` };
}
