import type { Schema } from "../../api/client";

type Material = Schema["MaterialCard"];

export const kinds = [
  "primer",
  "paint",
  "ink",
  "wash",
  "filter",
  "glaze medium",
  "varnish",
  "thinner",
  "medium",
  "pigment",
  "pencil",
  "texture paste",
  "filler",
  "crackle paste",
  "crackle medium",
  "chipping fluid",
  "glue",
  "aggregate",
  "tuft",
  "decal",
] as const satisfies readonly Schema["MaterialKind"][];
export const carriers = [
  "water acrylic",
  "solvent acrylic",
  "enamel",
  "oil",
  "alcohol",
  "dry",
  "PVA",
  "cyanoacrylate",
  "none",
] as const satisfies readonly Schema["Carrier"][];
export const sheens = ["matt", "satin", "gloss"] as const satisfies readonly Schema["Sheen"][];
export const lustres = ["plain", "metal", "glass", "glow"] as const satisfies readonly Schema["Lustre"][];
export const thinnerFamilies = [
  "water",
  "acrylic thinner",
  "lacquer thinner",
  "white spirit",
  "alcohol",
] as const satisfies readonly Schema["ThinnerFamily"][];

/** Everything as it is typed: text stays text until it is stored. */
export type Form = {
  name: string;
  maker: string;
  code: string;
  kind: Schema["MaterialKind"];
  carrier: Schema["Carrier"];
  sheen: Schema["Sheen"];
  lustre: Schema["Lustre"];
  mostThinnerShare: string;
  dropMl: string;
  densityGPerMl: string;
  thinners: Schema["ThinnerFamily"][];
  colour: string;
  overBlack: string;
  overWhite: string;
  coatsToHide: string;
  solidsFraction: string;
  touchMinutes: string;
  recoatMinutes: string;
  cureMinutes: string;
  stockMl: string;
  packMl: string;
  price: string;
  hazards: string;
  notes: string;
};

export const blankForm: Form = {
  name: "",
  maker: "",
  code: "",
  kind: "paint",
  carrier: "water acrylic",
  sheen: "matt",
  lustre: "plain",
  mostThinnerShare: "",
  dropMl: "",
  densityGPerMl: "",
  thinners: ["water", "acrylic thinner"],
  colour: "",
  overBlack: "",
  overWhite: "",
  coatsToHide: "",
  solidsFraction: "0.4",
  touchMinutes: "",
  recoatMinutes: "",
  cureMinutes: "",
  stockMl: "17",
  packMl: "17",
  price: "0",
  hazards: "",
  notes: "",
};

const text = (n: number | null | undefined) => (n == null ? "" : String(n));

export const formOf = (m: Material): Form => ({
  ...m,
  colour: m.colour ?? "",
  overBlack: m.overBlack ?? "",
  overWhite: m.overWhite ?? "",
  coatsToHide: text(m.coatsToHide),
  solidsFraction: text(m.solidsFraction),
  touchMinutes: text(m.touchMinutes),
  recoatMinutes: text(m.recoatMinutes),
  cureMinutes: text(m.cureMinutes),
  stockMl: text(m.stockMl),
  packMl: text(m.packMl),
  price: text(m.price),
  mostThinnerShare: text(m.mostThinnerShare),
  dropMl: text(m.dropMl),
  densityGPerMl: text(m.densityGPerMl),
});

const number = (typed: string) => {
  const n = Number(typed.replace(",", "."));
  // Letters in a number field go to the server as an impossible value, so that its fault names the field.
  return typed.trim() === "" ? null : Number.isFinite(n) ? n : -1;
};
const colour = (typed: string) => (typed.trim() === "" ? null : typed.trim());

export const toMaterial = (f: Form, version: number | null): Schema["MaterialIn"] => ({
  version,
  name: f.name,
  maker: f.maker,
  code: f.code,
  kind: f.kind,
  carrier: f.carrier,
  colour: colour(f.colour),
  overBlack: colour(f.overBlack),
  overWhite: colour(f.overWhite),
  coatsToHide: number(f.coatsToHide),
  sheen: f.sheen,
  solidsFraction: number(f.solidsFraction),
  thinners: f.thinners,
  touchMinutes: number(f.touchMinutes),
  recoatMinutes: number(f.recoatMinutes),
  cureMinutes: number(f.cureMinutes),
  heatSafe: null,
  stockMl: number(f.stockMl),
  packMl: number(f.packMl),
  price: number(f.price),
  hazards: f.hazards,
  notes: f.notes,
  lustre: f.lustre,
  mostThinnerShare: number(f.mostThinnerShare),
  dropMl: number(f.dropMl),
  densityGPerMl: number(f.densityGPerMl),
});
