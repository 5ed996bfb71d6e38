import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { day, inHundred } from "./evenings";

/** How the plan may come out, by the ranges of its minutes and of drying. */
export function Outlook({ workshopId }: { workshopId: string }) {
  const chance = useQuery({
    queryKey: ["chance", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/sessions/{workshopId}/chance", { params: { path: { workshopId } }, signal })),
  });
  const error = hindered(chance);
  if (error) return <Trouble error={error} retry={() => void chance.refetch()} />;
  if (!chance.data) return <p className="text-xs text-soft">Carrying it out by chance…</p>;
  const { data } = chance;
  if (data.trials === 0 || !data.early || !data.late) return null;
  return (
    <section aria-label="Chance" className="mb-5 text-xs">
      <h2 className="text-sm font-semibold">
        {data.onTime === null ? "When it may be finished" : `On time: ${inHundred(data.onTime)}`}
      </h2>
      <p>
        Eight times in ten between {day(data.early)} and {day(data.late)}, as often before{" "}
        {data.middle && day(data.middle)} as after.
      </p>
      <p className="text-soft">
        Simulated {data.trials} times: in the order of the plan, each begun when hands, wait and hours allow.
        Nobody works past the end of a session in it.
      </p>
      {data.most.length > 0 && (
        <>
          <h3 className="mt-1.5 font-semibold">What moves it most</h3>
          <ol>
            {data.most.map((m) => (
              <li key={m.name} className="flex gap-2 border-t border-hair py-0.5">
                <span className="min-w-0 flex-1">{m.name}</span>
                <span className="whitespace-nowrap tabular-nums">
                  {plural(Math.max(1, Math.round(m.days)), "day")}
                </span>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}
