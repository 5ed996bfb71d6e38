import { useQuery } from "@tanstack/react-query";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { useChange } from "../../shared/useChange";
import { minutes } from "../../shared/words";
import { factorWords } from "./evenings";
import type { Learned } from "./types";

/** Of less than this nothing is said yet. */
const FEWEST_PIECES = 4,
  SAME = 0.005;

/** What the log says of minutes and of drying, beside what is reckoned with; taken over by the piece, and back by undo. */
export function LearnedPanel({ setId, workshopId }: { setId: string; workshopId: string }) {
  const [change, busy] = useChange(workshopId);
  const learned = useQuery({
    queryKey: ["learned", setId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/log/{setId}/learned", { params: { path: { setId } }, signal })),
  });
  const error = hindered(learned);
  if (error) return <Trouble error={error} retry={() => void learned.refetch()} />;
  if (!learned.data) return <p className="text-soft">Going through the times…</p>;
  const { minutes: times, drying, version } = learned.data;
  const takeOver = (m: Learned["minutes"][number]) =>
    change(`${m.technique} is reckoned as it was logged.`, (headers) =>
      api.PUT("/api/workshops/{workshopId}/paces/{technique}", {
        params: { path: { workshopId, technique: m.technique } },
        headers,
        body: { version, figures: { ...m.figures, factor: m.factor, error: m.error } },
      }),
    );
  const dry = (d: Learned["drying"][number]) =>
    change(`${d.material} dries as it was seen to.`, (headers) =>
      api.POST("/api/log/{setId}/learned/drying", {
        params: { path: { setId } },
        headers,
        body: { materialId: d.materialId, factor: d.factor },
      }),
    );
  return (
    <div className="grid gap-6">
      <section aria-labelledby="learned-minutes">
        <h2 id="learned-minutes" className="text-sm font-semibold">
          Minutes
        </h2>
        <p className="mb-2 max-w-2xl text-xs text-soft">
          Logged times against the rule of thumb, with outliers left aside and drawn towards it while they are
          few. Estimates: four of five times between the two figures in brackets.
        </p>
        {times.length === 0 ? (
          <p className="text-soft">
            No times yet. A layer that is begun and done at the bench is timed by itself.
          </p>
        ) : (
          <table className="w-full max-w-4xl text-sm">
            <thead>
              <tr className="border-b border-line text-left text-xs text-soft">
                <th className="py-1 pr-3 font-normal">technique</th>
                <th className="pr-3 font-normal">from</th>
                <th className="pr-3 font-normal">the hands take</th>
                <th className="pr-3 font-normal">what is still to do</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {times.map((m) => (
                <tr key={m.technique} className="border-b border-line/60" data-learned={m.technique}>
                  <th scope="row" className="py-1.5 pr-3 text-left font-semibold">
                    {m.technique}
                  </th>
                  <td className="pr-3 text-xs">
                    {plural(m.pieces, "piece")}, {m.batches === 1 ? "1 batch" : `${m.batches} batches`}
                    {m.leftOut > 0 && `, ${m.leftOut} too far off to believe`}
                  </td>
                  <td className="pr-3">
                    {m.pieces < FEWEST_PIECES ? (
                      <span className="text-soft">too few to tell</span>
                    ) : (
                      <>
                        {factorWords(m.factor)}{" "}
                        <span className="text-xs text-soft">
                          (× {m.low.toFixed(2)} to {m.high.toFixed(2)})
                        </span>
                      </>
                    )}
                  </td>
                  <td className="pr-3 text-xs">
                    {m.minutesNow === m.minutesThen
                      ? minutes(m.minutesNow)
                      : `${minutes(m.minutesNow)}, then ${minutes(m.minutesThen)}`}
                  </td>
                  <td className="text-right">
                    {Math.abs(m.factor - m.inForce) < SAME ? (
                      <span className="text-xs text-soft">
                        {m.inForce === 1 ? "the rule of thumb" : "reckoned with"}
                      </span>
                    ) : (
                      <Button disabled={busy} onClick={() => void takeOver(m)}>
                        Reckon with it
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      <section aria-labelledby="learned-drying">
        <h2 id="learned-drying" className="text-sm font-semibold">
          Drying
        </h2>
        {drying.length === 0 ? (
          <p className="text-soft">
            Nothing seen yet. <i>Dry now</i> at the bench says when something is dry to the touch.
          </p>
        ) : (
          <ul className="max-w-4xl">
            {drying.map((d) => (
              <Dries key={d.materialId} seen={d} busy={busy} onTake={() => void dry(d)} />
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}

function Dries(props: { seen: Schema["LearnedDrying"]; busy: boolean; onTake: () => void }) {
  const { seen: d } = props;
  const few = d.pieces < FEWEST_PIECES || Math.abs(d.factor - 1) < SAME;
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 border-b border-line/60 py-1.5 text-sm">
      <b>{d.material}</b>
      <span>
        dry to the touch after {minutes(d.learned)}{" "}
        <span className="text-xs text-soft">
          ({minutes(d.low)} to {minutes(d.high)}; reckoned with {minutes(d.touchMinutes)}, at 20 °C), seen on{" "}
          {plural(d.pieces, "piece")}
        </span>
      </span>
      <span className="ml-auto">
        {few ? (
          <span className="text-xs text-soft">
            {d.pieces < FEWEST_PIECES ? "too few to tell" : "as reckoned"}
          </span>
        ) : (
          <Button disabled={props.busy} onClick={props.onTake}>
            Reckon with it
          </Button>
        )}
      </span>
    </li>
  );
}
