import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import { api, Refused, take } from "../../api/client";
import { isOpen } from "../../api/writes";
import { fold } from "./fold";
import { benchClock } from "../../shared/bench/clock";
import { BenchQueue, lastReading } from "../../shared/bench/queue";
import type { Reading } from "./types";

const AGAIN_MS = 5000;

/** A reading; whether it is the last there was because nobody answers, or because this device was sent away. */
type Known = { reading: Reading; away: boolean; sentAway: string };

/** Whether this device may not come in any more: what it has stays here, and can be looked at. */
const isSentAway = (error: Refused) => [401, 403].includes(error.refusal.status);

async function read(workshopId: string, signal: AbortSignal): Promise<Known> {
  try {
    const asked = performance.now();
    const reading = await take(
      api.GET("/api/bench/{workshopId}", { params: { path: { workshopId } }, signal }),
    );
    benchClock().learn(Date.parse(reading.now), asked);
    await lastReading.put(workshopId, reading);
    return { reading, away: false, sentAway: "" };
  } catch (error) {
    if (!(error instanceof Refused) || !(isOpen(error.refusal) || isSentAway(error))) throw error;
    const kept = await lastReading.get(workshopId);
    if (!kept) throw error;
    return { reading: kept, away: true, sentAway: isSentAway(error) ? error.message : "" };
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
    () => data && fold(data.reading, [...waiting.answered, ...waiting.events]),
    [data, waiting.answered, waiting.events],
  );
  return {
    query,
    known: data,
    bench,
    waiting,
    tell: (told: Parameters<BenchQueue["tell"]>[0]) => queue.tell(told),
    queue,
    photo: (setId: string, eventId: string, data: string) => queue.photo(setId, eventId, data),
  };
}
