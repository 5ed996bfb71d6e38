import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { useCommands } from "../../kit/keys";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { minutes } from "../../shared/words";
import { Chain } from "./Chain";
import { day, longest, nights, nightWords } from "./evenings";
import { Evening } from "./Evening";

/** What to do on which evening: hands above, drying below, nights in between. */
export function Component() {
  const { workshopId = "" } = useParams();
  const plan = useQuery({
    queryKey: ["sessions", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/sessions/{workshopId}", { params: { path: { workshopId } }, signal })),
  });
  const error = hindered(plan);
  useCommands("Sessions", [], { view: true, ready: !!error || !!plan.data });
  if (error) return <Trouble error={error} retry={() => void plan.refetch()} />;
  const { data } = plan;
  if (!data) return <p className="p-6 text-soft">Laying out the evenings…</p>;
  const widest = longest(data.sessions);
  return (
    <div className="flex h-full min-h-0 flex-col overflow-y-auto md:grid md:grid-cols-[minmax(0,1fr)_270px] md:overflow-visible">
      <div className="px-5 pt-3 pb-8 md:min-h-0 md:overflow-y-auto">
        <Heading plan={data} />
        {data.sessions.map((s, i) => (
          <div key={s.start}>
            {i > 0 && (
              <p className="mt-2 border-b border-dotted border-line pb-1 text-xs text-soft">
                {nightWords(nights(data.sessions[i - 1]!, s))}
              </p>
            )}
            <Evening session={s} widest={widest} />
          </div>
        ))}
      </div>
      <aside
        aria-label="What it hangs on"
        className="border-line bg-aside px-3.5 pt-3 pb-6 text-sm max-md:border-t md:min-h-0 md:overflow-y-auto md:border-l"
      >
        <Chain plan={data} />
        <h2 className="mt-5 text-sm font-semibold">Hours</h2>
        <p>{data.hours}</p>
        <p className="text-xs text-soft">
          {data.hoursGuessed ? "A guess, since nobody has said them. " : ""}
          By the clock of {data.timeZone}.{" "}
          <Link className="underline" to={`/sets/${workshopId}`}>
            Change them in the facts of the workshop
          </Link>
          .
        </p>
      </aside>
    </div>
  );
}

function Heading({ plan }: { plan: Schema["SessionsReading"] }) {
  if (plan.clash.length > 0)
    return (
      <>
        <h1 className="text-lg font-semibold">No timetable can be had</h1>
        <p className="mt-1">These cannot be had together; take any one away and it works:</p>
        <ul className="mt-1 list-disc pl-5">
          {plan.clash.map((c) => (
            <li key={c.words}>{c.words}</li>
          ))}
        </ul>
      </>
    );
  if (!plan.finish)
    return (
      <>
        <h1 className="text-lg font-semibold">Sessions</h1>
        <p className="mt-1 text-soft">Nothing is left to do: every layer that is planned is laid.</p>
      </>
    );
  return (
    <>
      <h1 className="text-lg font-semibold">
        Finished {day(plan.finish)}, {plural(plan.sessions.length, "session")}
      </h1>
      <p className="text-sm text-soft">
        {hours(plan.handsOnMinutes)} with hands on, {minutes(plan.idleMinutes)} idle in between,{" "}
        {plural(plan.setUps, "set-up")}. Minutes and drying are estimates; the label on the pot wins.
      </p>
      <p className="mt-1 mb-3 text-sm">{plan.binding}</p>
      {plan.leftOut.length > 0 && (
        <p className="mb-3 border-l-[3px] border-amber pl-2 text-sm">
          ▲ Not in it yet, for there is too much before: {plan.leftOut.join(", ")}.
        </p>
      )}
    </>
  );
}

/** Work is said in hours: nobody paints for days on end. */
const hours = (n: number) => (n < 600 ? minutes(n) : `${Math.round(n / 60)} h`);
