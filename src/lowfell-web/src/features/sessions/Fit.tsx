import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { NumberField } from "../../kit/NumberField";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { useChange } from "../../shared/useChange";
import { differs } from "../../shared/words";
import { workWords } from "./evenings";
import { curve, pointFor, WIDTH, HEIGHT } from "./fit";

/** Only so many hours: what to leave out so that least is lost as seen from the table. */
export function Fit({ workshopId }: { workshopId: string }) {
  const fit = useQuery({
    queryKey: ["fit", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/sessions/{workshopId}/fit", { params: { path: { workshopId } }, signal })),
  });
  const [hours, setHours] = useState<number | null>(null);
  const [change, busy] = useChange(workshopId);
  const error = hindered(fit);
  if (error) return <Trouble error={error} retry={() => void fit.refetch()} />;
  if (!fit.data) return <p className="text-xs text-soft">Weighing minutes against looks…</p>;
  const { points, leftOut } = fit.data;
  const wanted = hours ?? points[0]!.minutes / 60;
  const at = pointFor(points, wanted * 60);
  const point = points[at]!;
  const out = points.slice(0, at + 1).flatMap((p) => p.out);
  const { path, dot } = curve(points, at);
  const bodyOf = (layers: readonly { treatmentId: string; layerId: string }[]) => ({
    layers: layers.map(({ treatmentId, layerId }) => ({ treatmentId, layerId })),
  });
  return (
    <section aria-label="Fit to the hours" className="text-xs">
      <NumberField
        label="Hours there are"
        value={Math.round(wanted * 10) / 10}
        unit=""
        least={0}
        most={10_000}
        onSet={(v) => setHours(v)}
      />
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`${workWords(point.minutes)} of work, ${differs(point.difference)}`}
        className="mt-2 w-full border border-line bg-card"
      >
        <path d={path} fill="none" stroke="var(--tide)" strokeWidth="2" />
        <circle cx={dot.x} cy={dot.y} r="5" fill="var(--tide)" />
        <text x="6" y={HEIGHT - 6} fontSize="11" fill="var(--soft)">
          {workWords(points[0]!.minutes)}
        </text>
        <text x={WIDTH - 6} y={HEIGHT - 6} fontSize="11" textAnchor="end" fill="var(--soft)">
          {workWords(points.at(-1)!.minutes)}
        </text>
      </svg>
      <input
        type="range"
        aria-label="How much is left out"
        aria-valuetext={`${plural(out.length, "layer")} left out, ${workWords(point.minutes)}`}
        className="mt-1 w-full accent-tide"
        min={0}
        max={points.length - 1}
        value={at}
        onChange={(e) => setHours(points[Number(e.target.value)]!.minutes / 60)}
      />
      <p className="mt-1">
        <b>{workWords(point.minutes)}</b> of work, set-ups and all; as seen from the table{" "}
        {point.difference === 0 ? "nothing is lost" : differs(point.difference)}.
      </p>
      {point.minutes > wanted * 60 + 1 && (
        <p className="text-amber">
          ▲ It cannot be done in {workWords(wanted * 60)}: what is left holds or shapes.
        </p>
      )}
      {out.length > 0 && (
        <>
          <h3 className="mt-2 font-semibold">Left out</h3>
          <ul>
            {out.map((o) => (
              <li key={`${o.treatmentId} ${o.layerId}`} className="flex gap-2 border-t border-hair py-0.5">
                <span className="min-w-0 flex-1">{o.words}</span>
                <span className="text-soft tabular-nums">{Math.round(o.minutes)} min</span>
              </li>
            ))}
          </ul>
          <Button
            tone="go"
            className="mt-2"
            disabled={busy}
            onClick={() =>
              void change(`${plural(out.length, "layer")} left out.`, (headers) =>
                api.POST("/api/sessions/{workshopId}/left-out", {
                  params: { path: { workshopId } },
                  headers,
                  body: bodyOf(out),
                }),
              )
            }
          >
            Leave {out.length === 1 ? "it" : `these ${out.length}`} out
          </Button>
        </>
      )}
      {leftOut.length > 0 && (
        <>
          <h3 className="mt-3 font-semibold">Left out by now</h3>
          <ul>
            {leftOut.map((o) => (
              <li key={`${o.treatmentId} ${o.layerId}`} className="border-t border-hair py-0.5">
                {o.words}
              </li>
            ))}
          </ul>
          <Button
            className="mt-2"
            disabled={busy}
            onClick={() =>
              void change(`${plural(leftOut.length, "layer")} put back.`, (headers) =>
                api.POST("/api/sessions/{workshopId}/left-out/back", {
                  params: { path: { workshopId } },
                  headers,
                  body: bodyOf(leftOut),
                }),
              )
            }
          >
            Put all back
          </Button>
        </>
      )}
    </section>
  );
}
