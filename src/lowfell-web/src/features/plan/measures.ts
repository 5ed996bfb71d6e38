import type { Schema } from "../../api/client";
import { figure, name, percent, z } from "../../kit/form/checks";
import { sayFigure } from "../../kit/form/figures";

type Zone = Schema["ZoneDto"];

const reliefs = ["smooth", "light", "deep"] as const satisfies readonly Schema["Relief"][];

/** Raised, field and recess as they usually are; used when the relief is another, kept when it is the same. */
const usual = { smooth: [0.06, 0.9, 0.04], light: [0.15, 0.7, 0.15], deep: [0.2, 0.58, 0.22] } as const;

const share = (what: string) => percent({ name: what }).transform((n) => n ?? 0);

/** What may stand in the measures of a zone. */
export const schema = z
  .object({
    name: name("The zone's name", 120),
    areaCm2: figure("cm²", { name: "The area", least: 0.01, most: 100_000 }),
    relief: z.enum(reliefs),
    edgeMm: figure("mm", { name: "The edges", least: 0, most: 1_000_000 }),
    jointMm: figure("mm", { name: "The joints", least: 0, most: 1_000_000 }),
    up: share("What faces up"),
    side: share("What faces sideways"),
    down: share("What faces down"),
    cutEdge: z.boolean(),
    beforeAssembly: z.boolean(),
  })
  .superRefine((m, ctx) => {
    const sum = m.up + m.side + m.down;
    if (Math.abs(sum - 1) >= 0.001)
      ctx.addIssue({
        code: "custom",
        path: ["up"],
        message: `Up, sideways and down come to ${Math.round(sum * 1000) / 10} %; together they are 100 %.`,
      });
  });

export type Typed = z.input<typeof schema>;
type Measures = z.output<typeof schema>;

export const typedOf = (zone: Zone): Typed => ({
  name: zone.name,
  areaCm2: sayFigure(zone.areaCm2, "cm²"),
  relief: zone.relief,
  edgeMm: sayFigure(zone.edgeMm, "mm"),
  jointMm: sayFigure(zone.jointMm, "mm"),
  up: sayFigure(zone.up * 100, "%"),
  side: sayFigure(zone.side * 100, "%"),
  down: sayFigure(zone.down * 100, "%"),
  cutEdge: zone.cutEdge,
  beforeAssembly: zone.beforeAssembly,
});

/** What is sent, against the version it was edited from. */
export function toZone(m: Measures, zone: Zone, version: number): Schema["ZoneIn"] {
  const [raised, field, recess] =
    m.relief === zone.relief ? [zone.raised, zone.field, zone.recess] : usual[m.relief];
  return {
    ...m,
    version,
    raised,
    field,
    recess,
    targetSheen: null,
    targetColour: null,
    targetPosition: null,
  };
}

export { reliefs };
