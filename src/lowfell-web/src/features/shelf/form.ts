import type { Schema } from "../../api/client";
import { colour, figure, maybe, name, percent, words, z } from "../../kit/form/checks";
import { sayFigure } from "../../kit/form/figures";

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
export const sheens = ["matt", "eggshell", "satin", "gloss"] as const satisfies readonly Schema["Sheen"][];
export const lustres = ["plain", "metal", "glass", "glow"] as const satisfies readonly Schema["Lustre"][];
/** What hot air does to it: what its kind says, or what its label promises. */
export const heats = ["by its kind", "heat-safe"] as const;
export const thinnerFamilies = [
  "water",
  "acrylic thinner",
  "lacquer thinner",
  "white spirit",
  "alcohol",
] as const satisfies readonly Schema["ThinnerFamily"][];

const minutes = (what: string) => maybe("min", { name: what, least: 0, most: 100_000, whole: true });

const fields = z.object({
  name: name("The name", 120),
  maker: words("The maker", 120),
  code: words("The code", 40),
  kind: z.enum(kinds),
  carrier: z.enum(carriers),
  colour: colour("The colour"),
  overBlack: colour("A half of the card"),
  overWhite: colour("A half of the card"),
  coatsToHide: maybe("coats", { name: "The coats it takes", least: 0.25, most: 12 }),
  sheen: z.enum(sheens),
  lustre: z.enum(lustres),
  // A draft of before it was asked has none.
  hotAir: z.enum(heats).default(heats[0]),
  mostThinnerShare: percent({ name: "The most thinner", most: 99 }),
  solidsFraction: percent({ name: "What stays when dry" }),
  thinners: z.array(z.enum(thinnerFamilies)),
  touchMinutes: minutes("Touch dry"),
  recoatMinutes: minutes("Recoat"),
  cureMinutes: minutes("Cure"),
  stockMl: figure("ml", { name: "The stock", least: 0, most: 1_000_000 }),
  packMl: maybe("ml", { name: "The pack", least: 0, most: 1_000_000 }),
  dropMl: maybe("ml", { name: "A drop", least: 0.005, most: 0.5 }),
  densityGPerMl: maybe("g/ml", { name: "The weight", least: 0.3, most: 8 }),
  price: maybe("", { name: "The price", least: 0, most: 1_000_000 }),
  hazards: words("What the label says", 500),
  notes: words("The notes", 1000),
});

/** Kinds that have no colour of their own, or one that nothing is predicted from. */
const colourless: readonly Schema["MaterialKind"][] = [
  "varnish",
  "thinner",
  "medium",
  "glaze medium",
  "crackle medium",
  "chipping fluid",
  "glue",
  "tuft",
  "decal",
];

/** What may stand in the form of a material, and what is stored of it. */
export const schema = fields.superRefine((m, ctx) => {
  const fault = (path: keyof typeof m, message: string) =>
    ctx.addIssue({ code: "custom", path: [path], message });
  if (m.overBlack && !m.overWhite) fault("overWhite", "A contrast card needs both halves.");
  if (m.overWhite && !m.overBlack) fault("overBlack", "A contrast card needs both halves.");
  if (!m.colour && !m.overWhite && !colourless.includes(m.kind))
    fault("colour", "Give its colour, or a contrast card.");
  if (m.recoatMinutes !== null && m.recoatMinutes < (m.touchMinutes ?? 0))
    fault("recoatMinutes", "It can be recoated only once it is touch dry.");
  if (m.cureMinutes !== null && m.cureMinutes < (m.recoatMinutes ?? m.touchMinutes ?? 0))
    fault("cureMinutes", "It has cured only after it can be recoated.");
});

/** Everything as it is typed: text stays text until it is stored. */
export type Form = z.input<typeof schema>;
export type Entered = z.output<typeof schema>;

export const blankForm: Form = {
  name: "",
  maker: "",
  code: "",
  kind: "paint",
  carrier: "water acrylic",
  sheen: "matt",
  lustre: "plain",
  hotAir: "by its kind",
  mostThinnerShare: "",
  dropMl: "",
  densityGPerMl: "",
  thinners: ["water", "acrylic thinner"],
  colour: "",
  overBlack: "",
  overWhite: "",
  coatsToHide: "",
  solidsFraction: "",
  touchMinutes: "",
  recoatMinutes: "",
  cureMinutes: "",
  stockMl: "17 ml",
  packMl: "17 ml",
  price: "",
  hazards: "",
  notes: "",
};

const share = (n: number | null) => (n === null ? "" : sayFigure(n * 100, "%"));

/** A stored material as its form shows it. */
export const formOf = (m: Material): Form => ({
  name: m.name,
  maker: m.maker,
  code: m.code,
  kind: m.kind,
  carrier: m.carrier,
  sheen: m.sheen,
  lustre: m.lustre,
  hotAir: m.heatSafe ? "heat-safe" : "by its kind",
  thinners: m.thinners,
  hazards: m.hazards,
  notes: m.notes,
  colour: m.colour ?? "",
  overBlack: m.overBlack ?? "",
  overWhite: m.overWhite ?? "",
  coatsToHide: m.coatsToHide === null ? "" : String(m.coatsToHide),
  solidsFraction: share(m.solidsFraction),
  mostThinnerShare: share(m.mostThinnerShare),
  touchMinutes: sayFigure(m.touchMinutes, "min"),
  recoatMinutes: sayFigure(m.recoatMinutes, "min"),
  cureMinutes: sayFigure(m.cureMinutes, "min"),
  stockMl: sayFigure(m.stockMl, "ml"),
  packMl: m.packMl === 0 ? "" : sayFigure(m.packMl, "ml"),
  price: m.price === null ? "" : m.price.toFixed(2),
  dropMl: sayFigure(m.dropMl, "ml"),
  densityGPerMl: sayFigure(m.densityGPerMl, "g/ml"),
});

/** What is sent of it. */
export const toMaterial = ({ hotAir, ...m }: Entered, version: number | null): Schema["MaterialIn"] => ({
  ...m,
  version,
  heatSafe: hotAir === "heat-safe",
});

/** As much of what is typed as makes a card: what cannot be read is left out, and an unnamed grey stands in for no colour. */
export function forCard(typed: Form): { body: Schema["MaterialIn"]; coloured: boolean } | null {
  const named = { ...typed, name: typed.name.trim() || "new", price: "", notes: "", hazards: "" };
  const read = schema.safeParse(named);
  if (read.success) return { body: toMaterial(read.data, null), coloured: true };
  const plain = schema.safeParse({
    ...blankForm,
    name: "new",
    kind: typed.kind,
    carrier: typed.carrier,
    colour: "#808080",
  });
  return plain.success ? { body: toMaterial(plain.data, null), coloured: false } : null;
}
