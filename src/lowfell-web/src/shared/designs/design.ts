import type { Schema } from "../../api/client";
import { figure, maybe, name, percent, z } from "../../kit/form/checks";
import { sayFigure } from "../../kit/form/figures";
import type { Preset } from "./presets";

export const substrates = [
  "printed plastic",
  "moulded plastic",
  "resin",
  "metal",
  "board",
  "foam",
  "plaster",
  "wood",
] as const satisfies readonly Schema["Substrate"][];
export const reliefs = ["smooth", "light", "deep"] as const satisfies readonly Schema["Relief"][];
const silhouettes = [
  "wall",
  "corner",
  "house",
  "cottage",
  "jetty",
  "boat",
  "base",
] as const satisfies readonly Schema["Silhouette"][];
const sheens = ["", "matt", "eggshell", "satin", "gloss"] as const;

/** What a zone begins with besides the treatments there are: its id stands for one of those. */
export const USUAL = "usual",
  BARE = "bare";

const zone = z.object({
  name: name("The zone's name", 120),
  areaCm2: figure("cm²", { name: "The area", above: 0, most: 100_000 }),
  relief: z.enum(reliefs),
  edgeMm: maybe("mm", { name: "The edges", least: 0, most: 1_000_000 }),
  jointMm: maybe("mm", { name: "The joints", least: 0, most: 1_000_000 }),
  up: percent({ name: "What faces up" }),
  targetSheen: z.enum(sheens),
  ground: z.string(),
  layers: z.string(),
  /** The part of the drawing it is, and what was guessed for it. */
  part: z.string(),
  guess: z.string(),
});

/** A design as it is typed, and as it is sent. */
export const designSchema = z.object({
  kind: z.string(),
  name: name("The design's name", 120),
  pieces: figure("", { name: "The number of pieces", least: 1, most: 500, whole: true }),
  substrate: z.enum(substrates),
  silhouette: z.enum(silhouettes),
  zones: z
    .array(zone)
    .min(1, "A design has at least one zone.")
    .superRefine((zones, ctx) => {
      const seen = new Set<string>();
      for (const [i, { name }] of zones.entries()) {
        if (seen.has(name))
          ctx.addIssue({ code: "custom", path: [i, "name"], message: "Give every zone a name of its own." });
        seen.add(name);
      }
    }),
});

export type DesignDraft = z.input<typeof designSchema>;
export type ZoneDraft = DesignDraft["zones"][number];
type Design = z.output<typeof designSchema>;

const figures = (z: Pick<ZoneDraft, "areaCm2" | "edgeMm" | "jointMm" | "up">) =>
  JSON.stringify([z.areaCm2, z.edgeMm, z.jointMm, z.up]);

/** Whether a zone's figures are still those that were guessed for it. */
export const isGuessed = (z: ZoneDraft, field: "areaCm2" | "edgeMm" | "jointMm" | "up") => {
  if (!z.guess) return false;
  const guess = JSON.parse(z.guess) as string[];
  return guess[["areaCm2", "edgeMm", "jointMm", "up"].indexOf(field)] === z[field];
};

export const draftOf = (p: Preset): DesignDraft => ({
  kind: p.kind,
  name: p.name,
  pieces: String(p.pieces),
  substrate: p.substrate,
  silhouette: p.silhouette,
  zones: p.zones.map((z) => {
    const typed = {
      areaCm2: sayFigure(z.areaCm2, "cm²"),
      edgeMm: sayFigure(z.edgeMm, "mm"),
      jointMm: sayFigure(z.jointMm, "mm"),
      up: sayFigure(z.up * 100, "%"),
    };
    return {
      name: z.name,
      relief: z.relief,
      targetSheen: z.targetSheen ?? "",
      ground: z.ground,
      layers: USUAL,
      part: z.name,
      guess: figures(typed),
      ...typed,
    };
  }),
});

/** Another zone, with nothing guessed for it. */
export const anotherZone = (of: DesignDraft): ZoneDraft => ({
  name: "",
  areaCm2: "",
  relief: "light",
  edgeMm: "",
  jointMm: "",
  up: "0 %",
  targetSheen: "",
  ground: of.zones[0]?.ground ?? "",
  layers: USUAL,
  part: "",
  guess: "",
});

/**
 * Another kind of piece under the hands: what was typed as name and number stays, and what was typed into the zones of a kind comes
 * back with it.
 */
export function changeKind(
  now: DesignDraft,
  presets: readonly Preset[],
  to: Preset,
  typed: Readonly<Record<string, DesignDraft>>,
): DesignDraft {
  const was = presets.find((p) => p.kind === now.kind);
  const next = typed[to.kind] ?? draftOf(to);
  return {
    ...next,
    name: was && now.name !== was.name ? now.name : next.name,
    pieces: was && now.pieces !== String(was.pieces) ? now.pieces : next.pieces,
  };
}

/** A design as it is sent. */
export const toBody = (d: Design): Schema["NewDesignIn"] => ({
  name: d.name,
  pieces: d.pieces,
  substrate: d.substrate,
  silhouette: d.silhouette,
  startingLayers: null,
  zones: d.zones.map((z) => ({
    name: z.name,
    areaCm2: z.areaCm2,
    relief: z.relief,
    edgeMm: z.edgeMm,
    jointMm: z.jointMm,
    up: z.up,
    targetSheen: z.targetSheen === "" ? null : z.targetSheen,
    ground: z.ground || null,
    treatmentId: z.layers === USUAL || z.layers === BARE ? null : z.layers,
    startingLayers: z.layers === USUAL,
  })),
});
