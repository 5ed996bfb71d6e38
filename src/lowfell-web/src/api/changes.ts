import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { sent } from "./client";
import { wake } from "./writes";
import { all, moved, touched, type Change, type Versions } from "./moved";

/** A page that nobody touches listens after this long; a hand on it is a sooner sign. */
const UNTOUCHED_MS = 15_000;

/**
 * Listens to what others store in a workshop, while the page can be seen, and has what shows it read again. A page that was hidden or
 * cut off is told how things stand when it comes back.
 */
function listen(workshopId: string, queries: QueryClient) {
  let seen: Versions | null = null;
  let line: EventSource | null = null;
  const onVersions = (event: MessageEvent<string>) => {
    const change = JSON.parse(event.data) as Change;
    // What was stored between the first reading and now is not known of: everything shown is looked at once more.
    const slices = seen ? moved(seen, change, sent.has(change.write)) : all;
    seen = { ...seen, ...change.versions };
    for (const key of touched(slices)) void queries.invalidateQueries({ queryKey: [key] });
  };
  const look = () => {
    if (document.visibilityState === "hidden") {
      line?.close();
      line = null;
    } else if (again && (!line || line.readyState === EventSource.CLOSED)) {
      line = new EventSource(`/api/changes/${workshopId}`);
      line.addEventListener("versions", onVersions);
      // The server is back: what waits for it need not wait longer.
      line.addEventListener("open", wake);
    }
  };
  document.addEventListener("visibilitychange", look);
  // The first view is not slowed by it: listening begins with the first hand on the page, or after a while.
  const signs = ["pointermove", "pointerdown", "keydown"] as const;
  let again = 0;
  const start = () => {
    window.clearTimeout(untouched);
    for (const sign of signs) window.removeEventListener(sign, start);
    // A browser gives up on a line that is refused, as while the server starts anew.
    again = window.setInterval(look, 5000);
    look();
  };
  const untouched = window.setTimeout(start, UNTOUCHED_MS);
  for (const sign of signs) window.addEventListener(sign, start);
  return () => {
    window.clearTimeout(untouched);
    for (const sign of signs) window.removeEventListener(sign, start);
    document.removeEventListener("visibilitychange", look);
    window.clearInterval(again);
    line?.close();
  };
}

export function useChanges(workshopId: string | undefined) {
  const queries = useQueryClient();
  useEffect(() => (workshopId ? listen(workshopId, queries) : undefined), [workshopId, queries]);
}
