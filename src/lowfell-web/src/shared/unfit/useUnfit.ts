import { useQuery } from "@tanstack/react-query";
import { api, Refused, take, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { useSay } from "../../kit/Toast";

export type Unfit = Schema["Unfit"];

/** What did not fit, as the server keeps it. */
export const unfitQuery = (workshopId: string) => ({
  queryKey: ["unfit", workshopId] as const,
  queryFn: ({ signal }: { signal: AbortSignal }) =>
    take(api.GET("/api/bench/{workshopId}/unfit", { params: { path: { workshopId } }, signal })),
});

export const useUnfit = (workshopId: string, enabled = true) =>
  useQuery({ ...unfitQuery(workshopId), enabled: enabled && workshopId !== "" });

export type Change = Schema["UnfitChange"];

/** Decides about what did not fit; each decision says itself with its way back. */
export function useSettle(workshopId: string) {
  const [send, busy] = useWrite("work");
  const say = useSay();
  const run = async (words: string, call: () => Promise<unknown>, back?: () => void) => {
    try {
      await call();
      say(words, false, back && { text: "Undo", run: back });
      return true;
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      say(error.message, true);
      return false;
    }
  };
  const path = (id: string) => ({ path: { workshopId, id } });
  const undo = (id: string) =>
    run("It waits again.", () =>
      send((headers) => api.POST("/api/bench/{workshopId}/unfit/{id}/undo", { headers, params: path(id) })),
    );
  return {
    busy,
    undo,
    takeIn: (id: string) =>
      run(
        "Taken in after all.",
        () =>
          send((headers) =>
            api.POST("/api/bench/{workshopId}/unfit/{id}/take-in", { headers, params: path(id) }),
          ),
        () => void undo(id),
      ),
    correct: (id: string, change: Change) =>
      run(
        "Put right and taken in.",
        () =>
          send((headers) =>
            api.POST("/api/bench/{workshopId}/unfit/{id}/correct", {
              headers,
              params: path(id),
              body: change,
            }),
          ),
        () => void undo(id),
      ),
    letGo: (id: string) =>
      run(
        "Let go.",
        () =>
          send((headers) =>
            api.POST("/api/bench/{workshopId}/unfit/{id}/let-go", { headers, params: path(id) }),
          ),
        () => void undo(id),
      ),
  };
}
