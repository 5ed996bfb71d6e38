import { write } from "../../api/writes";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, take } from "../../api/client";
import { Button } from "../../kit/Button";
import { Trouble } from "../../kit/Trouble";

const LOOK_MS = 400;

/** A set too large to be gone through at once: how far it is, an end to it, and the remarks when they are there. */
export function LargeSet({ setId, zones }: { setId: string; zones: number }) {
  const queries = useQueryClient();
  const ask = useMutation({
    mutationFn: () =>
      write((headers) =>
        api.POST("/api/plan/sets/{setId}/remarks/job", { headers, params: { path: { setId } } }),
      ),
  });
  const id = ask.data?.id;
  const job = useQuery({
    queryKey: ["job", id],
    enabled: !!id,
    queryFn: ({ signal }) => take(api.GET("/api/jobs/{id}", { params: { path: { id: id! } }, signal })),
    refetchInterval: ({ state }) => (live(state.data?.state ?? "waiting") ? LOOK_MS : false),
  });
  const cancel = useMutation({
    mutationFn: () =>
      write((headers) => api.POST("/api/jobs/{id}/cancel", { headers, params: { path: { id: id! } } })),
    onSuccess: (now) => queries.setQueryData(["job", id], now),
  });
  const { mutate: begin, isIdle } = ask;
  useEffect(() => {
    if (isIdle) begin();
  }, [begin, isIdle]);
  const now = job.data;
  const state = now?.state ?? "waiting";
  useEffect(() => {
    if (state === "done") void queries.invalidateQueries({ queryKey: ["remarks", setId] });
  }, [state, queries, setId]);
  const error = ask.error ?? job.error;
  if (error) return <Trouble error={error} retry={() => (ask.error ? ask.reset() : void job.refetch())} />;
  if (state === "cancelled" || state === "failed")
    return (
      <div className="m-5 max-w-xl border-l-[3px] border-line bg-card px-3 py-2" role="status">
        <p className="mb-2">
          {state === "cancelled"
            ? "Stopped before every stack was gone through, so nothing can be said of the set yet."
            : "Going through the stacks ended in a fault. The log has the details."}
        </p>
        <Button tone="plain" onClick={() => begin()}>
          Go through the set
        </Button>
      </div>
    );
  const all = now?.allSteps || zones;
  return (
    <div className="m-5 max-w-xl bg-card px-4 py-3" data-job={state}>
      <label className="mb-1 block" htmlFor="how-far">
        Going through the stacks of {zones} zones. You can leave this view; it goes on.
      </label>
      <div className="flex items-center gap-3">
        <progress id="how-far" className="h-2 flex-1 accent-tide" max={all} value={now?.steps ?? 0} />
        <span className="w-24 text-right text-xs text-soft tabular-nums">
          {now?.steps ?? 0} of {all}
        </span>
        <Button tone="plain" disabled={!id || cancel.isPending} onClick={() => cancel.mutate()}>
          Stop
        </Button>
      </div>
    </div>
  );
}

const live = (state: string) => state === "waiting" || state === "running";
