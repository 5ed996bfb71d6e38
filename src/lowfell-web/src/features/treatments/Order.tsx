import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Choice } from "../../kit/Field";
import { Inline } from "../../kit/Inline";
import { plural } from "../../kit/severity";
import { Wide } from "../../kit/Wide";
import { useChange } from "../../shared/useChange";
import { orderQuery } from "./queries";

type Card = Schema["TreatmentCard"];
type Whole = Schema["TreatmentOrder"];
type Change = ReturnType<typeof useChange>[0];

/** A treatment in one order over its surfaces: what goes over what, what the surfaces are called, and others that come in. */
export function Order(props: { card: Card; others: readonly Card[]; workshopId: string }) {
  const { card, workshopId } = props;
  const order = useQuery(orderQuery(card.id)).data;
  const [change, busy] = useChange(workshopId);
  if (!order || card.putAwayAt) return null;
  const several = order.surfaces.length > 1;
  return (
    <section aria-labelledby="order" className="mt-5">
      <h3 id="order" className="text-sm font-semibold">
        {several ? `One order over ${order.surfaces.length} surfaces` : "One surface"}
      </h3>
      <p className="text-xs text-soft">
        {several
          ? "Every layer goes over the surfaces that are ticked. A zone has the layers of the surface it takes."
          : "Zones that are painted together can have one treatment, each a surface of it: then a layer goes over as many of them as it should, and is laid once."}
      </p>
      {several && <Matrix order={order} change={change} busy={busy} />}
      <BringIn {...props} order={order} change={change} busy={busy} />
    </section>
  );
}

/** Newest on top, as the layers lie: a row for each, a column for each surface. */
function Matrix({ order, change, busy }: { order: Whole; change: Change; busy: boolean }) {
  const rows = [...order.steps].reverse();
  return (
    <Wide label="Which layer goes over which surface">
      <table className="w-full text-xs" data-order={order.revision}>
        <caption className="sr-only">Layers of {order.name}, newest on top, and what each goes over</caption>
        <thead>
          <tr>
            <th scope="col" className="py-1 pr-3 text-left align-top font-normal text-soft">
              Layer
            </th>
            {order.surfaces.map((s) => (
              <th key={s.id} scope="col" className="min-w-28 px-1 py-1 text-left align-top font-normal">
                <Heading surface={s} order={order} change={change} busy={busy} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((step) => (
            <Row key={step.layer.id} step={step} order={order} change={change} busy={busy} />
          ))}
        </tbody>
      </table>
    </Wide>
  );
}

const where = (z: Schema["TreatmentUse"]) => `${z.zone}, ${z.design}`;

/** What a surface is called, which zones take it, and what it stands on where it is a detail. */
function Heading(props: { surface: Schema["SurfaceEntry"]; order: Whole; change: Change; busy: boolean }) {
  const { surface, order, change, busy } = props;
  const store = (words: string | null, with_: { name?: string; onId?: string | null }) =>
    change(words, (headers) =>
      api.PUT("/api/treatments/{treatmentId}/surfaces", {
        headers,
        params: { path: { treatmentId: order.id } },
        body: {
          version: order.version,
          surfaces: order.surfaces.map(({ id, name, onId }) => ({
            id,
            name,
            onId,
            ...(id === surface.id && with_),
          })),
        },
      }),
    );
  const on = order.surfaces.find((s) => s.id === surface.onId);
  const bears = order.surfaces.some((s) => s.onId === surface.id);
  return (
    <>
      <Inline
        label={`Name of the surface ${surface.name}`}
        value={surface.name}
        most={120}
        onStore={(name) => store(null, { name })}
      />
      <span className="block truncate px-1 text-soft" title={surface.zones.map(where).join("\n")}>
        {surface.zones.length === 0 ? "no zone takes it" : plural(surface.zones.length, "zone")}
      </span>
      {!bears && (
        <select
          aria-label={`What ${surface.name} stands on`}
          className="min-h-6 w-full truncate bg-transparent px-0.5 text-soft"
          value={surface.onId ?? ""}
          disabled={busy}
          onChange={(e) => {
            const now = order.surfaces.find((s) => s.id === e.target.value);
            void store(
              now
                ? `${surface.name} is a detail on ${now.name} now.`
                : `${surface.name} stands by itself again.`,
              { onId: now?.id ?? null },
            );
          }}
        >
          <option value="">by itself</option>
          {order.surfaces
            .filter((s) => s.id !== surface.id && !s.onId)
            .map((s) => (
              <option key={s.id} value={s.id}>
                on {s.name}
              </option>
            ))}
        </select>
      )}
      {on && (
        <button
          type="button"
          className="min-h-6 px-1 text-soft underline decoration-dotted underline-offset-2 hover:text-ink"
          disabled={busy}
          onClick={() =>
            void change(
              `${surface.name} is left out: it is painted over with ${on.name}, and shows what that shows.`,
              (headers) =>
                api.POST("/api/treatments/{treatmentId}/surfaces/{surfaceId}/leave-out", {
                  headers,
                  params: { path: { treatmentId: order.id, surfaceId: surface.id } },
                  body: { version: order.version },
                }),
            )
          }
        >
          Leave out
        </button>
      )}
    </>
  );
}

/** One layer: its words, and a box for each surface in the colour it comes to there. */
function Row(props: { step: Schema["StepDto"]; order: Whole; change: Change; busy: boolean }) {
  const { step, order, change, busy } = props;
  const lies = new Map(step.over.map((l) => [l.surfaceId, l]));
  const toggle = (surface: Schema["SurfaceEntry"]) => {
    const over = order.surfaces
      .map((s) => s.id)
      .filter((id) => (id === surface.id ? !lies.has(id) : lies.has(id)));
    const words = lies.has(surface.id)
      ? `${step.words} no longer goes over ${surface.name}.`
      : `${step.words} goes over ${surface.name} too.`;
    void change(words, (headers) =>
      api.PUT("/api/treatments/{treatmentId}/steps/{stepId}/over", {
        headers,
        params: { path: { treatmentId: order.id, stepId: step.layer.id } },
        body: { version: order.version, over },
      }),
    );
  };
  return (
    <tr className="border-t border-line">
      <th scope="row" className="py-1 pr-3 text-left font-normal">
        {step.words}
        {step.layer.note && <span className="block text-soft">{step.layer.note}</span>}
      </th>
      {order.surfaces.map((s) => {
        const lay = lies.get(s.id);
        // It has to lie somewhere: what is to go altogether is taken out of the stack.
        const last = lies.size === 1 && !!lay;
        return (
          <td
            key={s.id}
            className="px-1 py-0.5"
            style={lay && { boxShadow: `inset 0 -5px 0 ${lay.colour}` }}
            title={lay ? `${s.name}: ${lay.colour} once it is on` : undefined}
          >
            <label className="flex min-h-7 items-center gap-1.5 px-1">
              <input
                type="checkbox"
                aria-label={`${step.words} over ${s.name}`}
                checked={!!lay}
                disabled={busy || last}
                onChange={() => toggle(s)}
              />
              {lay?.own && <span className="text-soft">otherwise</span>}
            </label>
          </td>
        );
      })}
    </tr>
  );
}

/** Another treatment comes in: its zones go over to this one, and no stack changes. */
function BringIn(props: {
  card: Card;
  others: readonly Card[];
  order: Whole;
  change: Change;
  busy: boolean;
}) {
  const { card, others, order, change, busy } = props;
  const [chosen, setChosen] = useState("");
  const other = others.find((t) => t.id === chosen);
  return (
    <div className="mt-2 flex max-w-2xl flex-wrap items-end gap-2">
      <span className="min-w-60 flex-1">
        <Choice
          label="Bring another treatment in"
          value={chosen}
          placeholder="type a name"
          options={others
            .filter((t) => t.id !== card.id && !t.putAwayAt)
            .map((t) => ({
              value: t.id,
              text: `${t.name}, ${t.uses.length === 0 ? "no zone has it" : plural(t.uses.length, "zone")}`,
            }))}
          onChange={setChosen}
        />
      </span>
      <Button
        disabled={busy || !other}
        onClick={() =>
          other &&
          void change(`${other.name} is part of ${card.name} now; every zone keeps its layers.`, (headers) =>
            api.POST("/api/treatments/{treatmentId}/together", {
              headers,
              params: { path: { treatmentId: card.id } },
              body: {
                version: order.version,
                with: [{ treatmentId: other.id, version: other.version }],
                name: null,
              },
            }),
          ).then((done) => done && setChosen(""))
        }
      >
        Bring it in
      </Button>
    </div>
  );
}
