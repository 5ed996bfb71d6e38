import { api } from "../../api/client";
import { useChange } from "../../shared/useChange";
import { day, type Operation, type Plan, type Session } from "./evenings";

/** What can be done to a timetable; each is one step that can be taken back. */
export function useTimetable(workshopId: string, plan: Plan) {
  const [change, busy] = useChange(workshopId);
  const path = { workshopId };
  const number = plan.kept?.number ?? 0;
  const takeOver = (words: string, from: "anew" | "closest", atOnce: number | null = null, lateMinutes = 0) =>
    change(words, (headers) =>
      api.POST("/api/sessions/{workshopId}", {
        params: { path },
        headers,
        body: { number, from, atOnce, lateMinutes },
      }),
    );
  const move = (o: Operation, to: Session | null) =>
    change(
      to ? `${o.technique} on ${o.zone} is done ${day(to.start)}.` : "It goes where it likes now.",
      (headers) =>
        api.POST("/api/sessions/{workshopId}/moves", {
          params: { path },
          headers,
          body: { number, zoneId: o.zoneId, layerId: o.layerId, pieceId: o.pieceId, to: to?.start ?? null },
        }),
    );
  return { takeOver, move, busy };
}

export type Timetable = ReturnType<typeof useTimetable>;
