import { useQuery } from "@tanstack/react-query";
import { api, take, type Schema } from "../../api/client";

/** Pieces of a zone that have come equally far. */
export type SoFar = Schema["ComeSoFar"];

const none: SoFar[] = [];

/** How far the pieces of a zone have really come, the farthest first. */
export function useSoFar(zoneId: string): readonly SoFar[] {
  const { data } = useQuery({
    queryKey: ["so far", zoneId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/plan/zones/{zoneId}/so-far", { params: { path: { zoneId } }, signal })),
  });
  return data ?? none;
}
