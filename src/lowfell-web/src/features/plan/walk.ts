import type { Schema } from "../../api/client";

type Designs = readonly { id: string; zones: readonly Pick<Schema["ZoneEntry"], "id">[] }[];

/** The zone so many steps on in the order of the plan, or the first of the design so many on; null where the plan ends. */
export function zoneFrom(
  designs: Designs,
  zoneId: string | undefined,
  by: number,
  of: "zones" | "designs",
): string | null {
  if (of === "zones") {
    const all = designs.flatMap((d) => d.zones.map((z) => z.id));
    return all[all.indexOf(zoneId ?? "") + by] ?? null;
  }
  const filled = designs.filter((d) => d.zones.length > 0);
  const at = filled.findIndex((d) => d.zones.some((z) => z.id === zoneId));
  return filled[at + by]?.zones[0]?.id ?? null;
}
