import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { awayQuery } from "../../api/queries";
import type { Layer } from "./stack";
import type { Material } from "./types";

/** Materials by id: those on the shelf, and what layers still have of those taken off it. */
export function useKnown(layers: readonly Layer[], materials: Material[], workshopId: string) {
  const shelf = useMemo(() => new Map(materials.map((m) => [m.id, m])), [materials]);
  const missing = layers.some(
    (l) => l.paint.some((p) => !shelf.has(p.materialId)) || (l.dilution && !shelf.has(l.dilution.thinnerId)),
  );
  const { data } = useQuery({ ...awayQuery(workshopId), enabled: missing });
  return useMemo(
    () =>
      missing && data
        ? new Map([
            ...data.map((m) => [m.id, { ...m, name: `${m.name} (off the shelf)` }] as const),
            ...shelf,
          ])
        : shelf,
    [missing, data, shelf],
  );
}
