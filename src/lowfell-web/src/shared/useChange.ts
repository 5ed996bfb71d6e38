import { useCallback } from "react";
import { Refused, type Schema } from "../api/client";
import { turnAndSay } from "../api/undo";
import { useWrite } from "../api/writes";
import { useSay } from "../kit/Toast";

type Call<T> = Parameters<ReturnType<typeof useWrite>[0]>[0] &
  ((headers: { "Idempotency-Key": string }) => Promise<{ data?: T; error?: unknown; response: Response }>);

/**
 * Does one change, says what was done with the way back, or why not. The answer is null where it was refused: what the page shows is
 * what stands.
 */
export function useChange(workshopId: string) {
  const [send, busy] = useWrite("plan", "shelf", "work", "sessions");
  const say = useSay();
  const change = useCallback(
    async <T>(words: string | ((answer: T) => string) | null, call: Call<T>): Promise<T | null> => {
      try {
        const answer = await send<T>(call);
        const text = typeof words === "function" ? words(answer) : words;
        if (text) say(text, false, { text: "Undo", run: () => void turnAndSay(workshopId, "undo", say) });
        return answer;
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        say(error.message, true);
        return null;
      }
    },
    [send, say, workshopId],
  );
  return [change, busy] as const;
}

/** What a removal says: gone for a month's time, or put away because work refers to it. */
export const removed = (answer: Schema["PutAwayOrRemoved"]) => answer.says;
