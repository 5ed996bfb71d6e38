import { queryOptions } from "@tanstack/react-query";
import { api, take } from "./client";

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

export const materialsQuery = (workshopId: string) =>
  queryOptions({
    queryKey: ["materials", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/shelf/{workshopId}/materials", { params: { path: { workshopId } }, signal })),
  });

export const techniquesQuery = queryOptions({
  queryKey: ["techniques"],
  staleTime: Infinity,
  queryFn: ({ signal }) => take(api.GET("/api/plan/techniques", { signal })),
});
