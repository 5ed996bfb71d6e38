import { api, type Schema } from "../../api/client";
import { useChange } from "../../shared/useChange";
import { day, type Operation, type Plan, type Session } from "./evenings";

/** How a plan is laid out, besides what has to be done. */
export type Manner = Pick<Schema["KeptInfo"], "atOnce" | "careful" | "goal">;

/** What can be done to a timetable; each is one step that can be taken back. */
export function useTimetable(workshopId: string, plan: Plan) {
  const [change, busy] = useChange(workshopId);
  const path = { workshopId };
  const number = plan.kept?.number ?? 0;
  const manner: Manner = plan.kept ?? { atOnce: null, careful: false, goal: "soonest" };
  const store = (words: string, from: "anew" | "closest", how: Manner, lateMinutes = 0) =>
    change(words, (headers) =>
      api.POST("/api/sessions/{workshopId}", {
        params: { path },
        headers,
        body: { number, from, atOnce: how.atOnce, careful: how.careful, goal: how.goal, lateMinutes },
      }),
    );
  /** The best that is found today; as the plan is laid out now unless it is said how. */
  const anew = (words: string, how = manner) => store(words, "anew", how);
  /** The plan there is, with as little moved as can be. */
  const closest = (words: string, lateMinutes = 0) => store(words, "closest", manner, lateMinutes);
  const move = (o: Operation, to: Session | null) =>
    change(
      to ? `${o.technique} on ${o.zone} is done ${day(to.start)}.` : "It goes where it likes now.",
      (headers) =>
        api.POST("/api/sessions/{workshopId}/moves", {
          params: { path },
          headers,
          body: {
            number,
            zoneId: o.zoneId,
            layerId: o.layerId,
            pieceId: o.pieceId,
            beforehand: o.beforehand,
            to: to?.start ?? null,
          },
        }),
    );
  return { manner, anew, closest, move, busy };
}

export type Timetable = ReturnType<typeof useTimetable>;
