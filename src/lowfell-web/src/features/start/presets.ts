import { queryOptions } from "@tanstack/react-query";
import { api, take, type Schema } from "../../api/client";

export type Preset = Schema["DesignPreset"];

export const presetsQuery = queryOptions({
  queryKey: ["presets"],
  staleTime: Infinity,
  queryFn: ({ signal }) => take(api.GET("/api/plan/presets", { signal })),
});
