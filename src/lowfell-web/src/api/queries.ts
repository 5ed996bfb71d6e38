import { queryOptions } from "@tanstack/react-query";
import { cache } from "./cache";
import { api, take, type Schema } from "./client";

// What the views read, each under one key.
export const workshopsQuery = queryOptions({
  queryKey: ["workshops"],
  queryFn: ({ signal }) => take(api.GET("/api/workshops", { signal })),
});

export const overviewQuery = (setId: string) =>
  queryOptions({
    queryKey: ["overview", setId],
    queryFn: ({ signal }) => take(api.GET("/api/plan/sets/{setId}", { params: { path: { setId } }, signal })),
  });

const materialsAPage = 1000;

/** The whole shelf, however many pages it has; the first stands there while the others are read. */
export const materialsQuery = (workshopId: string) =>
  queryOptions({
    queryKey: ["materials", workshopId],
    queryFn: async ({ signal }) => {
      const all: Schema["MaterialCard"][] = [];
      const key = ["materials", workshopId];
      for (let page = 0; ; page++) {
        const some = await take(
          api.GET("/api/shelf/{workshopId}/materials", {
            params: { path: { workshopId }, query: { page } },
            signal,
          }),
        );
        all.push(...some);
        if (some.length < materialsAPage) return all;
        if (cache.getQueryData<unknown[]>(key) === undefined) cache.setQueryData(key, [...all]);
      }
    },
  });

/** What was taken off the shelf and layers may still have. */
export const awayQuery = (workshopId: string) =>
  queryOptions({
    queryKey: ["materials", workshopId, "away"],
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/shelf/{workshopId}/materials", {
          params: { path: { workshopId }, query: { page: 0, away: true } },
          signal,
        }),
      ),
  });

/** What on the shelf comes nearest to a material. */
export const standInsQuery = (materialId: string) =>
  queryOptions({
    queryKey: ["nearest", materialId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/shelf/materials/{id}/stand-ins", { params: { path: { id: materialId } }, signal })),
  });

export const recipesQuery = (workshopId: string) =>
  queryOptions({
    queryKey: ["recipes", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/workshops/{workshopId}/recipes", { params: { path: { workshopId } }, signal })),
  });

export const techniquesQuery = queryOptions({
  queryKey: ["techniques"],
  staleTime: Infinity,
  queryFn: ({ signal }) => take(api.GET("/api/plan/techniques", { signal })),
});

/** A zone with its layers. A stack being edited is never replaced under the painter's hands: what comes is laid under the edits. */
export const zoneQuery = (zoneId: string) =>
  queryOptions({
    queryKey: ["zone", zoneId],
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      take(api.GET("/api/plan/zones/{zoneId}", { params: { path: { zoneId } }, signal })),
  });

export const setsQuery = (workshopId: string) =>
  queryOptions({
    queryKey: ["sets", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/workshops/{workshopId}/sets", { params: { path: { workshopId } }, signal })),
  });

export const setQuery = (setId: string) =>
  queryOptions({
    queryKey: ["set", setId],
    queryFn: ({ signal }) => take(api.GET("/api/sets/{setId}", { params: { path: { setId } }, signal })),
  });
