import { queryOptions, useQueryClient } from "@tanstack/react-query";
import { api, take, type Schema } from "../../api/client";

export const potsQuery = (setId: string) =>
  queryOptions({
    queryKey: ["pots", setId],
    queryFn: ({ signal }) => take(api.GET("/api/pots/{setId}", { params: { path: { setId } }, signal })),
  });

export const potQuery = (setId: string, id: string) =>
  queryOptions({
    queryKey: ["pots", setId, "pot", id],
    queryFn: ({ signal }) =>
      take(api.GET("/api/pots/{setId}/{id}", { params: { path: { setId, id } }, signal })),
  });

export const look = (setId: string, body: Schema["JarIn"], signal?: AbortSignal) =>
  take(api.POST("/api/pots/{setId}/jar", { params: { path: { setId } }, body, ...(signal && { signal }) }));

/** After something happened to a pot, everything that knows of amounts is read again. */
export function useRefresh() {
  const queries = useQueryClient();
  return () =>
    Promise.all(
      ["pots", "stock", "materials", "zone", "overview", "remarks"].map((key) =>
        queries.invalidateQueries({ queryKey: [key] }),
      ),
    );
}
