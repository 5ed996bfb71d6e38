import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Choice } from "../../kit/Field";
import { plural } from "../../kit/severity";
import { Wide } from "../../kit/Wide";
import { useChange } from "../../shared/useChange";
import { orderQuery } from "./queries";
import { SurfaceHeading } from "./SurfaceHeading";

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
                <SurfaceHeading surface={s} order={order} change={change} busy={busy} />
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
