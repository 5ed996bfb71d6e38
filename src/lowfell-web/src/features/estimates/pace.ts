import type { Schema } from "../../api/client";
import { sayFigure, type Unit } from "../../kit/form/figures";

type Figures = Schema["PaceFigures"];

/** The figures a technique's minutes come of, as they are typed. */
export const paceFields = [
  { name: "setUpMinutes", label: "To get ready", unit: "min", least: 0, most: 600, hint: "once a batch" },
  { name: "cleanUpMinutes", label: "To clean", unit: "min", least: 0, most: 600, hint: "once a batch" },
  { name: "minutesPerCm2", label: "Minutes for a cm²", unit: "", least: 0, most: 60, hint: "of the region" },
  { name: "minutesPerCm", label: "Minutes for a cm", unit: "", least: 0, most: 60, hint: "of joint or edge" },
  {
    name: "minutesPerPiece",
    label: "Handling a piece",
    unit: "min",
    least: 0,
    most: 600,
    hint: "take up, turn, put down",
  },
  {
    name: "minutesPerDetail",
    label: "Minutes for a detail",
    unit: "",
    least: 0,
    most: 60,
    hint: "letter, tuft, hit",
  },
  {
    name: "learning",
    label: "Each doubling of the batch",
    unit: "%",
    least: 50,
    most: 100,
    hint: "of the minutes remain for a piece",
  },
  {
    name: "factor",
    label: "All of it times",
    unit: "",
    least: 0.1,
    most: 10,
    hint: "what logged times have come to",
  },
  { name: "error", label: "Usually off by", unit: "%", least: 1, most: 200, hint: "up or down: the range" },
] as const satisfies readonly {
  name: keyof Figures;
  label: string;
  unit: Unit;
  least: number;
  most: number;
  hint: string;
}[];

type Name = (typeof paceFields)[number]["name"];
export type PaceForm = Record<Name, string>;

const isShare = (name: Name) => name === "learning" || name === "error";

/** Figures as they are typed; what there is none of is empty. */
export const say = (f: Figures): PaceForm =>
  Object.fromEntries(
    paceFields.map(({ name, unit }) => {
      const v = f[name];
      return [name, v == null ? "" : sayFigure(isShare(name) ? Math.round(v * 1000) / 10 : v, unit)];
    }),
  ) as PaceForm;

/** Figures as they are sent. */
export const read = (form: Record<Name, number | null>): Figures =>
  Object.fromEntries(
    paceFields.map(({ name }) => {
      const v = form[name];
      return [name, v === null ? null : isShare(name) ? v / 100 : v];
    }),
  ) as Figures;
