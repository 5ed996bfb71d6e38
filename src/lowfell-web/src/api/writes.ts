import { useCallback, useRef, useState, useSyncExternalStore } from "react";
import { Refused, take, type Refusal } from "./client";
import { readAgain } from "./cache";
import type { Slice } from "./moved";

type Call<T> = (headers: {
  "Idempotency-Key": string;
}) => Promise<{ data?: T; error?: unknown; response: Response }>;

/** Whether an answer leaves open what became of a write: nobody answered, or "not now". */
export const isOpen = (why: Pick<Refusal, "status">) => [0, 429, 502, 503, 504, 507].includes(why.status);

const FIRST_PAUSE_MS = 500,
  LONGEST_PAUSE_MS = 10_000;

/** How long to wait before asking again. */
export const pauseMs = (attempt: number) =>
  Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** Math.min(attempt, 10));

// Writes that wait for the server to come back, and why.
const waiting = new Map<string, string>();
let told: { count: number; why: string } = { count: 0, why: "" };
const watchers = new Set<() => void>();
const sleepers = new Set<() => void>();

function tell() {
  told = { count: waiting.size, why: [...waiting.values()].at(-1) ?? "" };
  for (const call of watchers) call();
}

/** Has everything that waits asked again at once. */
export function wake() {
  for (const go of sleepers) go();
}

const sleep = (ms: number) =>
  new Promise<void>((resolve) => {
    const go = () => {
      clearTimeout(timer);
      sleepers.delete(go);
      resolve();
    };
    const timer = setTimeout(go, ms);
    sleepers.add(go);
  });

/**
 * Sends a write until there is a definite answer. Its key stays the same however often it is sent, so that it counts once even when an
 * answer was lost; a refusal is thrown.
 */
export async function write<T>(call: Call<T>, key: string = crypto.randomUUID()): Promise<T> {
  for (let attempt = 0; ; attempt++) {
    try {
      const answer = await take(call({ "Idempotency-Key": key }));
      if (waiting.delete(key)) tell();
      return answer;
    } catch (error) {
      if (error instanceof Refused && isOpen(error.refusal)) {
        waiting.set(key, error.message);
        tell();
        await sleep(pauseMs(attempt));
        continue;
      }
      if (waiting.delete(key)) tell();
      throw error;
    }
  }
}

/** Writes that wait at present. */
export const useWaiting = () =>
  useSyncExternalStore(
    (call) => {
      watchers.add(call);
      return () => void watchers.delete(call);
    },
    () => told,
  );

/**
 * One write at a time from one place of a page: another that is wanted meanwhile waits its turn, and none is dropped. When one is done,
 * everything that shows something of the slices it changed is read again. Whoever must not be pressed twice goes by `busy`.
 */
export function useWrite(...slices: Slice[]) {
  const [open, setOpen] = useState(0);
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const of = slices.join();
  const run = useCallback(
    <T>(call: Call<T>): Promise<T> => {
      setOpen((n) => n + 1);
      const now = last.current
        .then(() => write(call))
        .then(async (answer) => {
          await readAgain(of.split(",") as Slice[]);
          return answer;
        })
        .finally(() => setOpen((n) => n - 1));
      last.current = now.catch(() => undefined);
      return now;
    },
    [of],
  );
  return [run, open > 0] as const;
}

if (typeof window !== "undefined") window.addEventListener("online", wake);
