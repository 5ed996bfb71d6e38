import { queryOptions } from "@tanstack/react-query";
import { api, take } from "../../api/client";

export const libraryQuery = (workshopId: string) =>
  queryOptions({
    queryKey: ["library", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/workshops/{workshopId}/treatments", { params: { path: { workshopId } }, signal })),
  });

export const orderQuery = (treatmentId: string) =>
  queryOptions({
    queryKey: ["treatment order", treatmentId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/treatments/{treatmentId}/order", { params: { path: { treatmentId } }, signal })),
  });

export const versionsQuery = (treatmentId: string) =>
  queryOptions({
    queryKey: ["versions", treatmentId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/treatments/{treatmentId}/versions", { params: { path: { treatmentId } }, signal })),
  });
