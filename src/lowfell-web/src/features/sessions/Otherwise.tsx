import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { minutes } from "../../shared/words";
import { day, inHundred, workWords, type Plan } from "./evenings";
import type { Manner, Timetable } from "./useTimetable";

/** The same work done otherwise, side by side. */
export function Otherwise({
  workshopId,
  plan,
  timetable,
}: {
  workshopId: string;
  plan: Plan;
  timetable: Timetable;
}) {
  const ways = useQuery({
    queryKey: ["alternatives", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/sessions/{workshopId}/alternatives", { params: { path: { workshopId } }, signal })),
  });
  const error = hindered(ways);
  if (error) return <Trouble error={error} retry={() => void ways.refetch()} />;
  if (!ways.data) return <p className="text-xs text-soft">Laying it out nine ways…</p>;
  return (
    <ul className="grid gap-2">
      {ways.data.map((w) => {
        const how: Manner = w;
        const here =
          plan.kept &&
          w.canTake &&
          how.atOnce === plan.kept.atOnce &&
          how.careful === plan.kept.careful &&
          how.goal === plan.kept.goal;
        return (
          <li
            key={w.id}
            className={`border-l-[3px] bg-card px-2.5 py-1.5 text-xs ${here ? "border-tide" : "border-line"}`}
          >
            <b className="text-sm">{w.name}</b>
            <p className="text-soft">{w.words}</p>
            {w.finish ? (
              <>
                <p>
                  {day(w.finish)}, {plural(w.sessions, "session")}, {workWords(w.handsOnMinutes)} of work
                </p>
                <p>
                  {minutes(w.idleMinutes)} idle, {plural(w.setUps, "set-up")}
                  {w.onTime !== null && `, ${inHundred(w.onTime)} on time`}
                </p>
              </>
            ) : (
              <p>No timetable can be had so.</p>
            )}
            {w.canTake && w.finish && !here && (
              <Button
                className="mt-1"
                disabled={timetable.busy}
                aria-label={`Take over: ${w.name}`}
                onClick={() =>
                  void timetable.anew(`The timetable is laid out: ${w.name.toLowerCase()}.`, how)
                }
              >
                Take it over
              </Button>
            )}
            {(w.id === "evening" || w.id === "hands") && (
              <Link className="mt-1 inline-flex min-h-6 items-center underline" to={`/sets/${workshopId}`}>
                Change the facts of the workshop
              </Link>
            )}
          </li>
        );
      })}
    </ul>
  );
}
