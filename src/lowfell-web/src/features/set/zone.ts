import type { Schema } from "../../api/client";
import { changes } from "../../kit/form/changes";
import { figure, maybe, name, percent, z } from "../../kit/form/checks";
import { sayFigure } from "../../kit/form/figures";
import { handlings, reliefs, sheens, surfaces } from "../../shared/choices";

type Facts = Schema["ZoneFacts"];

/** A change of a zone that changes nothing. */
export const noChange: Omit<Schema["ZoneChange"], "version"> = {
  name: null,
  position: null,
  designId: null,
  areaCm2: null,
  relief: null,
  up: null,
  side: null,
  down: null,
  raised: null,
  field: null,
  recess: null,
  edgeMm: null,
  jointMm: null,
  smallestDetailMm: null,
  faceWidthMm: null,
  handling: null,
  targetSheen: null,
  cutEdge: null,
  beforeAssembly: null,
  surface: null,
  surfaceLengthMm: null,
  surfaceHeightMm: null,
  rivetMm: null,
  across: null,
  touches: null,
  treatmentId: null,
  clear: null,
};

const share = (what: string) => percent({ name: what }).transform((n) => n ?? 0);

const whole = (a: number, b: number, c: number) => Math.abs(a + b + c - 1) < 0.001;
const sum = (a: number, b: number, c: number) =>
  `${Math.round((a + b + c) * 1000) / 10} %; together they are 100 %.`;

/** What may stand in the form of a zone. */
export const schema = z
  .object({
    name: name("The zone's name", 120),
    areaCm2: figure("cm²", { name: "The area", least: 0.01, most: 100_000 }),
    relief: z.enum(reliefs),
    surface: z.enum(surfaces),
    surfaceLengthMm: maybe("mm", { name: "The length", above: 0, most: 10_000 }),
    surfaceHeightMm: maybe("mm", { name: "The height", above: 0, most: 10_000 }),
    rivetMm: maybe("mm", { name: "The rivets", above: 0, most: 10_000 }),
    across: z.boolean(),
    edgeMm: maybe("mm", { name: "The edges", least: 0, most: 1_000_000 }),
    jointMm: maybe("mm", { name: "The joints", least: 0, most: 1_000_000 }),
    smallestDetailMm: figure("mm", { name: "The smallest detail", least: 0.01, most: 1000 }),
    faceWidthMm: maybe("mm", { name: "The width of the face", above: 0, most: 10_000 }),
    up: share("What faces up"),
    side: share("What faces sideways"),
    down: share("What faces down"),
    raised: share("What is raised"),
    field: share("The field"),
    recess: share("The recess"),
    handling: z.enum(["", ...handlings]),
    targetSheen: z.enum(["", ...sheens]),
    cutEdge: z.boolean(),
    beforeAssembly: z.boolean(),
    touches: z.array(z.string()),
  })
  .superRefine((m, ctx) => {
    if (!whole(m.up, m.side, m.down))
      ctx.addIssue({
        code: "custom",
        path: ["up"],
        message: `Up, sideways and down come to ${sum(m.up, m.side, m.down)}`,
      });
    if (!whole(m.raised, m.field, m.recess))
      ctx.addIssue({
        code: "custom",
        path: ["raised"],
        message: `Raised, field and recess come to ${sum(m.raised, m.field, m.recess)}`,
      });
  });

export type Typed = z.input<typeof schema>;
export type Values = z.output<typeof schema>;

/** A zone as it stands in the form; a new one begins as a plain face of light relief. */
export const typedOf = (zone: Facts | null): Typed => ({
  name: zone?.name ?? "",
  areaCm2: sayFigure(zone?.areaCm2, "cm²"),
  relief: zone?.relief ?? "light",
  surface: zone?.surface ?? "plain",
  surfaceLengthMm: sayFigure(zone?.surfaceLengthMm, "mm"),
  surfaceHeightMm: sayFigure(zone?.surfaceHeightMm, "mm"),
  rivetMm: sayFigure(zone?.rivetMm, "mm"),
  across: zone?.across ?? false,
  edgeMm: sayFigure(zone?.edgeMm, "mm"),
  jointMm: sayFigure(zone?.jointMm, "mm"),
  smallestDetailMm: sayFigure(zone?.smallestDetailMm ?? 1, "mm"),
  faceWidthMm: sayFigure(zone?.faceWidthMm, "mm"),
  up: sayFigure((zone?.up ?? 0) * 100, "%"),
  side: sayFigure((zone?.side ?? 1) * 100, "%"),
  down: sayFigure((zone?.down ?? 0) * 100, "%"),
  raised: sayFigure((zone?.raised ?? 0.15) * 100, "%"),
  field: sayFigure((zone?.field ?? 0.7) * 100, "%"),
  recess: sayFigure((zone?.recess ?? 0.15) * 100, "%"),
  handling: zone?.handling ?? "",
  targetSheen: zone?.targetSheen ?? "",
  cutEdge: zone?.cutEdge ?? false,
  beforeAssembly: zone?.beforeAssembly ?? false,
  touches: [...(zone?.touches ?? [])].sort(),
});

/** Shares that go together are sent together. */
const together = [
  ["up", "side", "down"],
  ["raised", "field", "recess"],
] as const;

/** What may be made empty again: then the set, or the usual size, stands in for it. */
const empties = [
  "handling",
  "targetSheen",
  "surfaceLengthMm",
  "surfaceHeightMm",
  "rivetMm",
  "faceWidthMm",
] as const;

/** What is sent of a changed zone: only what differs from what the form began with. */
export function changeOf(was: Values, now: Values): Omit<Schema["ZoneChange"], "version"> {
  const changed = changes(was, now);
  for (const group of together)
    if (group.some((key) => changed[key] !== undefined)) for (const key of group) changed[key] = now[key];
  const clear = empties.filter((key) => changed[key] === null || changed[key] === "");
  const { handling, targetSheen, ...rest } = changed;
  return {
    ...noChange,
    ...rest,
    handling: handling || null,
    targetSheen: targetSheen || null,
    clear: clear.length > 0 ? [...clear] : null,
  };
}

/** What the sizes of a surface are called; null where it has none. */
export const sizesOf: Record<
  Schema["SurfaceKind"],
  { length: string; height?: string; rivets?: boolean; across?: string } | null
> = {
  plain: null,
  courses: { length: "Blocks, long", height: "Blocks, high" },
  boards: { length: "Boards, wide", across: "The boards stand upright" },
  slates: { length: "Slates, wide", height: "Slates, as far as they show" },
  ribs: { length: "From rib to rib", across: "The ribs stand upright" },
  panels: { length: "Panels, long", height: "Panels, high", rivets: true },
  links: { length: "From link to link" },
  grain: { length: "Grains" },
  crackle: { length: "Cells of the crackle" },
  mesh: { length: "From wire to wire" },
};
