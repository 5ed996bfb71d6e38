import { queryOptions } from "@tanstack/react-query";
import { api, take, type Schema } from "../../api/client";

export type Preset = Schema["DesignPreset"];

/** Treatments of a workshop that a new zone can share. */
export const treatmentsQuery = (workshopId: string) =>
  queryOptions({
    queryKey: ["treatments", "workshop", workshopId],
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/plan/workshops/{workshopId}/treatments", { params: { path: { workshopId } }, signal }),
      ),
  });

export const presetsQuery = queryOptions({
  queryKey: ["presets"],
  staleTime: Infinity,
  queryFn: ({ signal }) => take(api.GET("/api/plan/presets", { signal })),
});
