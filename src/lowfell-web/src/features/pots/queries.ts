import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { readAgain } from "../../api/cache";
import { api, take, type Schema } from "../../api/client";
import { withPieces } from "./pots";

/** Mixes and pots: as many pages of pots as were asked for, those with something in them first. */
export const potsQuery = (setId: string, pages = 1) =>
  queryOptions({
    queryKey: ["pots", setId, "pages", pages],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const read = (page: number) =>
        take(api.GET("/api/pots/{setId}", { params: { path: { setId }, query: { page } }, signal }));
      let reading = await read(0);
      for (let page = 1; page < pages && reading.more; page++) {
        const next = await read(page);
        reading = { ...next, pots: [...reading.pots, ...next.pots] };
      }
      return withPieces(reading);
    },
  });

/** A pot and what happened to it, newest first, as many pages as were asked for. */
export const potQuery = (setId: string, id: string, pages = 1) =>
  queryOptions({
    queryKey: ["pots", setId, "pot", id, pages],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const read = (page: number) =>
        take(api.GET("/api/pots/{setId}/{id}", { params: { path: { setId, id }, query: { page } }, signal }));
      let history = await read(0);
      for (let page = 1; page < pages && history.more; page++) {
        const next = await read(page);
        history = { ...next, events: [...history.events, ...next.events] };
      }
      return history;
    },
  });

export const look = (setId: string, body: Schema["JarIn"], signal?: AbortSignal) =>
  take(api.POST("/api/pots/{setId}/jar", { params: { path: { setId } }, body, ...(signal && { signal }) }));

/** After something happened to a pot, everything that knows of amounts is read again. */
export const useRefresh = () => () => readAgain(["work", "stock"]);
