import { Refused } from "../../api/client";
import { useWrite } from "../../api/writes";
import { useSay } from "../../kit/Toast";

type Call<T> = Parameters<ReturnType<typeof useWrite>[0]>[0] &
  ((headers: { "Idempotency-Key": string }) => Promise<{ data?: T; error?: unknown; response: Response }>);

/** Opens, shuts or sends away, and says so. Who is sent away is taken in again by a new key, not by undo. */
export function useDoorstep() {
  const [send, busy] = useWrite("devices");
  const say = useSay();
  const step = async <T>(words: string, call: Call<T>) => {
    try {
      await send<T>(call);
      say(words);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      say(error.message, true);
    }
  };
  return [step, busy] as const;
}
