import { Button } from "../../kit/Button";
import { plural } from "../../kit/severity";
import { minutes } from "../../shared/words";
import { day, workWords, type Plan } from "./evenings";
import type { Timetable } from "./useTimetable";

/** When it is finished and what that hangs on; and whether the plan still holds. */
export function Heading({ plan, timetable, late }: { plan: Plan; timetable: Timetable; late: () => void }) {
  if (plan.clash.length > 0)
    return (
      <>
        <h1 className="text-lg font-semibold">No timetable can be had</h1>
        <p className="mt-1">These cannot be had together; take any one away and it works:</p>
        <ul aria-label="What clashes" className="mt-1 list-disc pl-5">
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
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 className="text-lg font-semibold">
          Finished {day(plan.finish)}, {plural(plan.sessions.length, "session")}
        </h1>
        <Button onClick={late} aria-haspopup="dialog">
          Late today…
        </Button>
        {plan.kept ? (
          <Button
            disabled={timetable.busy}
            onClick={() => void timetable.anew("The timetable was made anew.")}
          >
            Make it anew
          </Button>
        ) : (
          <Button
            tone="go"
            disabled={timetable.busy}
            onClick={() => void timetable.anew("The timetable is kept.")}
          >
            Keep this plan
          </Button>
        )}
      </div>
      <p className="text-sm text-soft">
        {workWords(plan.handsOnMinutes)} with hands on, {minutes(plan.idleMinutes)} idle in between,{" "}
        {plural(plan.setUps, "set-up")}. {plan.kept?.careful && "Waits and windows are on the safe side. "}
        {plan.kept?.goal === "fewest" && "As few sessions as can be. "}
        Minutes and drying are estimates; the label on the pot wins.
      </p>
      {plan.due.map((d) => (
        <p key={d.setId} className={`text-sm ${d.met ? "" : "text-amber"}`}>
          {d.met ? "✓" : "▲"} {d.set} is wanted by {day(d.due)} and finished {d.finish && day(d.finish)}
          {d.met ? "." : ": late."}
        </p>
      ))}
      <p className="mt-1 text-sm">{plan.binding}</p>
      {plan.news && (
        <div
          role="status"
          className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 border-l-[3px] border-amber pl-2 text-sm"
        >
          <span className="min-w-0 flex-1">
            <b>Out of date.</b> {plan.news.words} Shown as it would be.
          </span>
          {plan.news.finish && (
            <Button
              tone="go"
              disabled={timetable.busy}
              onClick={() => void timetable.closest("What has changed is in the plan.")}
            >
              Take it over
            </Button>
          )}
        </div>
      )}
      {plan.leftOut.length > 0 && (
        <p className="mt-2 border-l-[3px] border-amber pl-2 text-sm">
          ▲ Not in it yet, for there is too much before: {plan.leftOut.join(", ")}.
        </p>
      )}
    </>
  );
}
