import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import { api, Refused, take } from "../../api/client";
import { isOpen } from "../../api/writes";
import { fold } from "./fold";
import { BenchQueue, lastReading } from "../../shared/bench/queue";
import type { Reading } from "./types";

const AGAIN_MS = 5000;
const OFFSET = "lowfell.bench.offset";

/** A reading, by how much this device's clock is behind the server's, and whether it is the last there was because nobody answers. */
type Known = { reading: Reading; offsetMs: number; away: boolean };

async function read(workshopId: string, signal: AbortSignal): Promise<Known> {
  try {
    const asked = Date.now();
    const reading = await take(
      api.GET("/api/bench/{workshopId}", { params: { path: { workshopId } }, signal }),
    );
    // Half of the way there and back lies before the server looked at its clock.
    const offsetMs = Date.parse(reading.now) - (asked + Date.now()) / 2;
    localStorage.setItem(OFFSET, String(offsetMs));
    await lastReading.put(workshopId, reading);
    return { reading, offsetMs, away: false };
  } catch (error) {
    const kept = error instanceof Refused && isOpen(error.refusal) && (await lastReading.get(workshopId));
    if (!kept) throw error;
    return { reading: kept, offsetMs: Number(localStorage.getItem(OFFSET) ?? 0), away: true };
  }
}

/** The bench as it stands: what the server says of it, and on top what happened here and is on its way. */
export function useBench(workshopId: string) {
  const queries = useQueryClient();
  const query = useQuery({
    queryKey: ["bench", workshopId],
    queryFn: ({ signal }) => read(workshopId, signal),
    // Without a network what was read last is read again, from here.
    networkMode: "always",
    refetchInterval: (q) => (q.state.data?.away ? AGAIN_MS : false),
  });
  const queue = useMemo(
    () =>
      new BenchQueue(workshopId, () => void queries.invalidateQueries({ queryKey: ["bench", workshopId] })),
    [workshopId, queries],
  );
  useEffect(() => {
    const begun = queue.begin();
    return () => void begun.then((end) => end());
  }, [queue]);
  const waiting = useSyncExternalStore(queue.watch, queue.now);
  const { data } = query;
  const last = data?.reading.lastNumber;
  useEffect(() => {
    if (last !== undefined) void queue.learn(last);
  }, [queue, last]);
  // The server is back: what waits for it goes at once.
  const away = data?.away;
  useEffect(() => {
    if (away === false) void queue.flush();
  }, [queue, away]);
  const bench = useMemo(
    () => data && fold(data.reading, [...waiting.answered, ...waiting.events], data.offsetMs),
    [data, waiting.answered, waiting.events],
  );
  return {
    query,
    known: data,
    bench,
    waiting,
    tell: (told: Parameters<BenchQueue["tell"]>[0]) => queue.tell(told),
    photo: (setId: string, eventId: string, data: string) => queue.photo(setId, eventId, data),
  };
}
