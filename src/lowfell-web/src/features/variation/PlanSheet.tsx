import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { Trouble } from "../../kit/Trouble";
import { useChange } from "../../shared/useChange";
import { Controls } from "./Controls";
import { Dealt } from "./Dealt";
import { DoneDialog } from "./DoneDialog";
import type { Draft, Piece, Zone } from "./types";
import { ZonePlan } from "./ZonePlan";

const MOST_SEED = 1_000_000;

/** The plan of one layer: what is asked of it, and what it gives every piece. A change is looked at until it is kept. */
export function PlanSheet(props: {
  setId: string;
  treatmentId: string;
  layerId: string;
  workshopId: string;
}) {
  const { setId, treatmentId, layerId } = props;
  const path = { setId, treatmentId, layerId };
  const stored = useQuery({
    queryKey: ["variation", setId, treatmentId, layerId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/variation/{setId}/{treatmentId}/{layerId}", { params: { path }, signal })),
  });
  const [draft, setDraft] = useState<Draft | null>(null);
  const look = useQuery({
    queryKey: ["variation", setId, treatmentId, layerId, draft],
    enabled: !!draft,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/variation/{setId}/{treatmentId}/{layerId}/look", {
          params: { path },
          body: { varied: draft },
          signal,
        }),
      ),
  });
  const [change, busy] = useChange(props.workshopId);
  const [open, setOpen] = useState<{ zone: Zone; piece: Piece } | null>(null);
  const plan = (draft && look.data) || stored.data;
  const asked = draft ?? stored.data?.varied;
  const kept = !draft && !!stored.data?.kept;
  const another = () => asked && setDraft({ ...asked, seed: asked.seed >= MOST_SEED ? 1 : asked.seed + 1 });
  const keep = async (varied: Draft | null, byShelf = false) => {
    if (!stored.data) return;
    const words = varied
      ? `Plan ${varied.seed} is kept with the layer.`
      : "The layer is laid alike on every piece.";
    if (
      await change(words, (headers) =>
        api.PUT("/api/variation/{setId}/{treatmentId}/{layerId}", {
          params: { path },
          headers,
          body: { treatmentVersion: stored.data.treatmentVersion, varied, byShelf },
        }),
      )
    )
      // What was wished for meanwhile stays.
      setDraft((since) => (since === draft ? null : since));
  };
  useCommands(
    "Variation",
    [
      { id: "variation another", key: "x", says: "another plan", run: another },
      {
        id: "variation keep",
        key: "v",
        says: "keep this plan with the layer",
        run: () => asked && !kept && !busy && void keep(asked),
      },
    ],
    { ready: !!plan },
  );
  const error = hindered(stored);
  if (error) return <Trouble error={error} retry={() => void stored.refetch()} />;
  if (!plan || !asked) return <p className="p-6 text-soft">Laying it out…</p>;
  const refused = draft ? hindered(look) : null;
  return (
    <article
      aria-label={`Layer ${plan.number}, ${plan.technique}, ${plan.treatment}`}
      className="px-5 pt-3 pb-8"
    >
      <div className="flex flex-wrap items-center gap-2">
        <h1 className="text-lg font-semibold">
          {plan.technique[0]!.toUpperCase() + plan.technique.slice(1)} {plan.paint}
        </h1>
        <span className="text-xs text-soft">
          layer {plan.number} of {plan.treatment} · plan {asked.seed}
          {draft ? " · not kept yet" : kept ? " · kept" : " · not varied yet"}
        </span>
        <span className="no-print ml-auto flex flex-wrap gap-2">
          <Button onClick={another}>
            Another <kbd aria-hidden="true">x</kbd>
          </Button>
          <Button onClick={() => window.print()}>Print the sheet</Button>
          {kept && (
            <Button disabled={busy} onClick={() => void keep(null)}>
              Alike on every piece
            </Button>
          )}
          {draft && stored.data?.kept && <Button onClick={() => setDraft(null)}>Back to what is kept</Button>}
          {!kept && (
            <Button tone="go" disabled={busy || !!refused} onClick={() => void keep(asked)}>
              Keep it <kbd aria-hidden="true">v</kbd>
            </Button>
          )}
        </span>
      </div>
      {refused && (
        <p role="alert" className="mt-2 text-sm text-amber">
          ▲ {refused.message}
        </p>
      )}
      <div className="no-print mt-3">
        <Controls plan={plan} draft={asked} onDraft={setDraft} />
      </div>
      <Dealt plan={plan} busy={busy} onByShelf={() => void keep(asked, true)} />
      {plan.zones.map((z) => (
        <ZonePlan
          key={z.zoneId}
          zone={z}
          hasMarks={plan.hasMarks}
          onPiece={(piece) => setOpen({ zone: z, piece })}
        />
      ))}
      {open && (
        <DoneDialog
          piece={open.piece}
          zone={open.zone}
          layerId={layerId}
          busy={busy}
          onClose={() => setOpen(null)}
          onStore={(done) =>
            void change(`${open.piece.label} is noted.`, (headers) =>
              api.PUT("/api/variation/{setId}/{treatmentId}/{layerId}/done", {
                params: { path },
                headers,
                body: { zoneId: open.zone.zoneId, pieceId: open.piece.pieceId, ...done },
              }),
            ).then((stored) => stored && setOpen(null))
          }
        />
      )}
    </article>
  );
}
