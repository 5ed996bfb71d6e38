import type { Schema } from "../../api/client";
import { readFigure, type Unit } from "../../kit/form/figures";

/** A layer that a mix goes on, with every piece of its design and whether it has it. */
export type Place = Schema["MixPlace"] & { all: { id: string; label: string; done: boolean }[] };
export type Mix = Omit<Schema["MixDto"], "places"> & { places: Place[] };
export type Reading = Omit<Schema["PotsReading"], "mixes"> & { mixes: Mix[] };
export type Pot = Schema["PotDto"];
export type Look = Schema["JarLook"];
export type Part = { materialId: string; parts: number };

/** A jar being put together: what it is, how much, and what it is for. */
export type Draft = {
  parts: Part[];
  totalMl: number;
  technique: Schema["Technique"];
  tool: Schema["Tool"];
  needleMm: number | null;
  bar: number | null;
  /** The plan's recipe that a remix takes the place of. */
  standsFor?: string;
};

/** Pieces travel once a design; every place gets its own view of them. */
export function withPieces(reading: Schema["PotsReading"]): Reading {
  const pieces = new Map(reading.designs.map((d) => [d.id, d.pieces]));
  const all = (p: Schema["MixPlace"]) => {
    const done = new Set(p.done);
    return (pieces.get(p.designId) ?? []).map((piece, i) => ({ ...piece, done: done.has(i) }));
  };
  const mixes = reading.mixes.map((m) => ({ ...m, places: m.places.map((p) => ({ ...p, all: all(p) })) }));
  return { ...reading, mixes };
}

export const vessels = ["jar", "wet palette", "palette"] as const satisfies readonly Schema["Vessel"][];

/** A stretch of time as people say it: minutes up to two hours, then hours, days, months. */
export function span(minutes: number): string {
  const said = (n: number, unit: string) => `${n} ${unit}${n === 1 ? "" : "s"}`;
  if (minutes < 120) return `${Math.max(1, Math.round(minutes))} min`;
  if (minutes < 36 * 60) return said(Math.round(minutes / 60), "hour");
  if (minutes < 60 * 24 * 60) return said(Math.round(minutes / 1440), "day");
  return said(Math.round(minutes / 43_200), "month");
}

/** What is left of a pot's life at a moment; an estimate, and said as one. */
export function life(pot: Pick<Pot, "goodUntil" | "vessel">, now: number): { says: string; over: boolean } {
  const left = (Date.parse(pot.goodUntil) - now) / 60_000;
  if (left <= 0) return { says: `past its time by ${span(-left)}: look and stir first`, over: true };
  return { says: `good for about ${span(left)} (${pot.vessel})`, over: false };
}

/** Figures as they are typed, with a comma or a point, with or without their unit; null for what is none. */
export function typed(text: string, unit: Unit = "ml"): number | null {
  const read = readFigure(text, unit);
  return read && "value" in read ? read.value : null;
}

/** At most two decimals, and none that say nothing. */
export const short = (n: number) => String(Math.round(n * 100) / 100);

/** Which mix a label should begin with: "Ground" of "Ground one" comes from the painter, a number from us. */
export function nextLabel(name: string, taken: readonly string[]): string {
  const base = name.split(" + ")[0]!.slice(0, 60);
  for (let n = 1; ; n++) {
    const label = n === 1 ? `${base} pot` : `${base} pot ${n}`;
    if (!taken.includes(label)) return label;
  }
}

/** How many of the pieces that still want a layer a pot lasts for, by what the plan says they take. */
export const lastsFor = (ml: number, place: Pick<Place, "ml" | "pieces">) =>
  place.pieces === 0 || place.ml === 0
    ? 0
    : Math.min(place.pieces, Math.floor((ml / place.ml) * place.pieces + 1e-6));

/** What stands at the bench of the pots: a pot, a mix of the plan, or one put together freely. */
export type Chosen = { pot: string } | { mix: string } | { free: true };

/** Everything in the list, in its order: what stands mixed, what is to be mixed, what comes straight from the bottle. */
export const inListOrder = (reading: Pick<Reading, "pots" | "mixes">): Chosen[] => [
  ...reading.pots.filter((p) => p.ml > 0).map((p) => ({ pot: p.id })),
  ...reading.mixes.filter((m) => m.needsMixing).map((m) => ({ mix: m.recipeKey })),
  ...reading.mixes.filter((m) => !m.needsMixing).map((m) => ({ mix: m.recipeKey })),
];

/** The next one or the one before; the last stays the last, and from nowhere one comes to the first. */
export function stepFrom(
  order: readonly Chosen[],
  at: { pot?: string; mix?: string },
  by: number,
): Chosen | null {
  const now = order.findIndex((c) =>
    "pot" in c ? c.pot === at.pot : "mix" in c && !at.pot && c.mix === at.mix,
  );
  return order[now < 0 ? 0 : Math.max(0, Math.min(order.length - 1, now + by))] ?? null;
}
