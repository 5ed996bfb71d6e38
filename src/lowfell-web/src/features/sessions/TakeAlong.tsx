import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { Button } from "../../kit/Button";
import { useChange } from "../../shared/useChange";
import type { Plan } from "./evenings";

/** The plan outside of Lowfell: calendar, table, and a secret address to subscribe to. */
export function TakeAlong({ workshopId, plan }: { workshopId: string; plan: Plan }) {
  const { data } = useQuery({
    queryKey: ["calendar", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/sessions/{workshopId}/address", { params: { path: { workshopId } }, signal })),
  });
  const [path, setPath] = useState<string | null>(null);
  const [change, busy] = useChange(workshopId);
  const params = { path: { workshopId } };
  const make = async () => {
    const made = await change(null, (headers) =>
      api.POST("/api/sessions/{workshopId}/address", { params, headers }),
    );
    if (made) setPath(made.path);
  };
  const revoke = async () => {
    await change("The address works no longer.", (headers) =>
      api.DELETE("/api/sessions/{workshopId}/address", { params, headers }),
    );
    setPath(null);
  };
  return (
    <section aria-label="Take along" className="grid gap-3 text-xs">
      <p>
        <a className="underline" href={`/api/sessions/${workshopId}/calendar.ics`} download="sessions.ics">
          Sessions as a calendar file
        </a>
        {!plan.kept && <span className="block text-amber">▲ Empty until a timetable is taken over.</span>}
      </p>
      <p>
        <a className="underline" href={`/api/sessions/${workshopId}/plan.csv`} download="plan.csv">
          Every operation as a table
        </a>
      </p>
      <div>
        <h2 className="text-sm font-semibold">Subscribe</h2>
        <p className="text-soft">
          A secret address on this machine that a calendar can read. Whoever has it can see the sessions, and
          nothing else.
        </p>
        {path && (
          <p className="mt-1">
            Copy it now, it is not shown again:
            <input
              readOnly
              aria-label="The address"
              className="mt-1 w-full rounded-[2px] border border-line bg-card px-1.5 py-1 font-mono"
              value={`${location.origin}${path}`}
              onFocus={(e) => e.target.select()}
            />
          </p>
        )}
        <div className="mt-1.5 flex flex-wrap gap-2">
          <Button disabled={busy} onClick={() => void make()}>
            {data?.exists ? "Make a new one" : "Make an address"}
          </Button>
          {data?.exists && (
            <Button disabled={busy} onClick={() => void revoke()}>
              Revoke it
            </Button>
          )}
        </div>
      </div>
    </section>
  );
}
