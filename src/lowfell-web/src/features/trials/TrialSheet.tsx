import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { Inline } from "../../kit/Inline";
import { Trouble } from "../../kit/Trouble";
import { useChange } from "../../shared/useChange";
import { minutes } from "../../shared/words";
import { FieldPanel } from "./FieldPanel";
import { LessonPanel } from "./LessonPanel";
import { spare } from "./levels";
import { TileDrawing } from "./TileDrawing";
import { keepTrial } from "./trueSize";
import type { Trial } from "./types";

/** One trial: the tile, the order of work, and what was seen. */
export function TrialSheet(props: { setId: string; trialId: string; workshopId: string }) {
  const { setId, trialId, workshopId } = props;
  const trial = useQuery({
    queryKey: ["trial", setId, trialId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/trials/{setId}/{trialId}", { params: { path: { setId, trialId } }, signal })),
  });
  const [change, busy] = useChange(workshopId);
  const [cell, setCell] = useState<string | null>(null);
  const [step, setStep] = useState<number | null>(null);
  const error = hindered(trial);
  if (error) return <Trouble error={error} retry={() => void trial.refetch()} />;
  if (!trial.data) return <p className="p-6 text-soft">Predicting every field…</p>;
  const t = trial.data;
  const field =
    t.cells.find((c) => c.cell === cell) ?? t.cells.find((c) => c.cell === t.chosen) ?? t.cells[0];
  const masks = step === null ? undefined : t.steps.find((s) => s.number === step)?.masks;
  const put = (words: string, body: { name?: string; putAway?: boolean }) =>
    change(words, (headers) =>
      api.PUT("/api/trials/{setId}/{trialId}", {
        params: { path: { setId, trialId } },
        headers,
        body: { version: t.version!, ...body },
      }),
    );
  return (
    <article aria-label={t.name} className="lg:grid lg:grid-cols-[minmax(0,1fr)_300px] print:block">
      <div className="min-w-0 px-5 pt-3 pb-8">
        <div className="no-print flex flex-wrap items-center gap-3">
          <span className="w-80 max-w-full">
            <Inline
              label="Name of the trial"
              value={t.name}
              most={120}
              className="text-base font-semibold"
              onStore={(name) => put(`The trial is ${name}.`, { name })}
            />
          </span>
          <span className="text-xs text-soft">
            {t.zone}, {t.design} · predicted, dry, usual hand
          </span>
          <span className="ml-auto flex gap-2">
            <Button onClick={() => window.print()}>Print at true size</Button>
            <Button disabled={!!t.refusal} onClick={() => void keepTrial(t)}>
              As a PDF
            </Button>
            {t.onBench ? (
              <Link to={`/bench/${workshopId}`} className="self-center text-xs underline">
                On the bench
              </Link>
            ) : (
              <Button
                disabled={busy || !!t.refusal}
                onClick={() =>
                  void change(
                    "The tile is a piece of the set: sessions and the bench have its steps.",
                    (headers) =>
                      api.POST("/api/trials/{setId}/{trialId}/bench", {
                        params: { path: { setId, trialId } },
                        headers,
                      }),
                  )
                }
              >
                Put it on the bench
              </Button>
            )}
            <Button
              disabled={busy}
              onClick={() =>
                void put(t.putAway ? `${t.name} is back.` : `${t.name} is put away.`, { putAway: !t.putAway })
              }
            >
              {t.putAway ? "Bring back" : "Put away"}
            </Button>
          </span>
        </div>
        <p className="mt-1 text-sm">
          {t.factors.map((f, i) => (
            <span key={f.layerId} className="block">
              <b>{f.words[0]!.toUpperCase() + f.words.slice(1)}</b>: {f.levels.join(" · ")}
              {i === 0 && t.factors.length > 1 && <span className="sr-only"> with</span>}
            </span>
          ))}
        </p>
        {t.refusal ? (
          <p role="alert" className="mt-3 text-amber">
            ▲ {t.refusal}
          </p>
        ) : (
          <>
            <div className="no-print mt-3">
              <TileDrawing
                trial={t}
                chosen={field?.cell ?? null}
                onChoose={setCell}
                {...(masks ? { masks } : {})}
              />
              <p className="text-xs text-soft">
                {t.tile.widthMm} × {t.tile.heightMm} mm{t.tile.round && ", round"}
                {t.tile.relief && `, ${t.tile.relief} relief`} · fields {t.cells[0]!.widthMm.toFixed(1)} ×{" "}
                {t.cells[0]!.heightMm.toFixed(1)} mm ·{" "}
                {t.maskingMoves === 1 ? "tape is laid once" : `tape is laid ${t.maskingMoves} times`}
              </p>
            </div>
            {spare(t).map(({ alike }) => (
              <p
                key={alike.words}
                className="no-print mt-2 border-l-4 border-tide bg-tide-wash px-3 py-1.5 text-sm"
              >
                {alike.words}
              </p>
            ))}
            <Order trial={t} step={step} onStep={setStep} />
            <div className="hidden print:block">
              <TileDrawing trial={t} trueSize />
            </div>
          </>
        )}
      </div>
      {field && (
        <aside
          aria-label="What was seen"
          className="no-print border-line bg-aside px-4 pt-3 pb-6 text-sm max-lg:border-t lg:border-l"
        >
          <FieldPanel key={field.cell} trial={t} cell={field} workshopId={workshopId} />
          <LessonPanel trial={t} workshopId={workshopId} onChoose={setCell} />
        </aside>
      )}
    </article>
  );
}

function Order(props: { trial: Trial; step: number | null; onStep: (step: number | null) => void }) {
  const { trial, step } = props;
  return (
    <section aria-labelledby="order-of-work" className="mt-4">
      <h2 id="order-of-work" className="text-sm font-semibold">
        In this order
      </h2>
      <ol className="text-sm">
        {trial.steps.map((s) => (
          <li key={s.number} className="flex gap-2 border-b border-line/50 py-1">
            <span className="w-5 shrink-0 text-right text-soft">{s.number}</span>
            <span className="min-w-0 flex-1">
              {s.words}
              {s.waitMinutes > 0 && (
                <span className="text-xs text-soft"> Then {minutes(s.waitMinutes)}.</span>
              )}
            </span>
            {s.masks.length > 0 && (
              <Button
                className="no-print shrink-0"
                aria-pressed={step === s.number}
                onClick={() => props.onStep(step === s.number ? null : s.number)}
              >
                Show the tape
              </Button>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
