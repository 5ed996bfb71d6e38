import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { find } from "../../kit/find";
import { TextField } from "../../kit/Field";
import { Inline } from "../../kit/Inline";
import { useCommands } from "../../kit/keys";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { useChange } from "../../shared/useChange";
import { Order } from "./Order";
import { libraryQuery } from "./queries";
import { Strata } from "./Strata";
import { Versions } from "./Versions";

type Card = Schema["TreatmentCard"];

/** The treatments of a workshop: found by name, material or place; each with where it is used and how it became what it is. */
export function Component() {
  const { workshopId = "", treatmentId } = useParams();
  const navigate = useNavigate();
  const library = useQuery(libraryQuery(workshopId));
  const error = hindered(library);
  const [typed, setTyped] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const found = useMemo(() => find(library.data ?? [], said, typed), [library.data, typed]);
  const chosen = library.data?.find((t) => t.id === treatmentId) ?? found[0];
  const walk = (by: number) => () => {
    const to = found[found.findIndex((t) => t.id === chosen?.id) + by];
    if (to) void navigate(`/treatments/${workshopId}/${to.id}`, { replace: true });
  };
  useCommands(
    "Treatments",
    [
      { id: "treatment find", key: "x", says: "find a treatment", run: () => field.current?.focus() },
      { id: "treatment next", key: ".", says: "next treatment", run: walk(1) },
      { id: "treatment before", key: ",", says: "treatment before", run: walk(-1) },
    ],
    { view: true, ready: !!error || !!library.data },
  );
  if (error) return <Trouble error={error} retry={() => void library.refetch()} />;
  if (!library.data) return <p className="p-6 text-soft">Reading the treatments…</p>;
  return (
    <div className="h-full min-h-0 overflow-y-auto md:grid md:grid-cols-[minmax(240px,330px)_minmax(0,1fr)] md:overflow-hidden">
      <div className="flex min-h-0 flex-col border-line max-md:max-h-[45vh] max-md:border-b md:border-r">
        <div className="px-4 pt-3 pb-2">
          <h1 className="text-lg font-semibold">Treatments</h1>
          <TextField
            ref={field}
            label="Find by name, material or zone"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
          <p role="status" className="mt-1 text-xs text-soft">
            {typed
              ? `${plural(found.length, "treatment")} of ${library.data.length}`
              : plural(found.length, "treatment")}
          </p>
        </div>
        <ul aria-label="Treatments" className="min-h-0 flex-1 overflow-y-auto">
          {found.map((t) => (
            <li key={t.id}>
              <Link
                to={`/treatments/${workshopId}/${t.id}`}
                replace
                aria-current={t.id === chosen?.id ? "page" : undefined}
                className={`flex items-center gap-3 px-4 py-1.5 ${t.id === chosen?.id ? "bg-card shadow-[inset_3px_0_0_var(--tide)]" : "hover:bg-aside"}`}
              >
                <Strata of={t.strata} className="h-9 w-12" />
                <span className="min-w-0 leading-tight">
                  <span className={`block truncate font-semibold ${t.putAwayAt ? "text-soft" : ""}`}>
                    {t.name}
                  </span>
                  <span className="block truncate text-xs text-soft">
                    {plural(t.strata.length, "layer")} ·{" "}
                    {t.putAwayAt
                      ? "put away"
                      : t.uses.length === 0
                        ? "no zone has it"
                        : plural(t.uses.length, "zone")}
                  </span>
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </div>
      <div className="min-w-0 px-5 pt-3 pb-8 md:pane">
        {chosen ? (
          <Treatment key={chosen.id} card={chosen} others={library.data} workshopId={workshopId} />
        ) : (
          <p className="text-soft">Nothing is called so.</p>
        )}
      </div>
    </div>
  );
}

/** What it is found by. */
const said = (t: Card) =>
  [t.name, ...t.strata.map((s) => s.paint), ...t.uses.map((u) => `${u.zone} ${u.design}`)].join(" ");

function Treatment(props: { card: Card; others: readonly Card[]; workshopId: string }) {
  const { card, others, workshopId } = props;
  const [change, busy] = useChange(workshopId);
  const navigate = useNavigate();
  const params = { path: { treatmentId: card.id } };
  const sets = [...new Set(card.uses.map((u) => u.set))];
  return (
    <article aria-label={card.name}>
      <h2 className="sr-only">{card.name}</h2>
      <div className="flex flex-wrap items-center gap-3">
        <span className="w-72 max-w-full">
          <Inline
            label="Name of the treatment"
            value={card.name}
            most={120}
            className="text-base font-semibold"
            onStore={(name) =>
              change(null, (headers) =>
                api.PUT("/api/treatments/{treatmentId}", {
                  headers,
                  params,
                  body: { version: card.version, name },
                }),
              )
            }
          />
        </span>
        <span className="ml-auto flex gap-1.5">
          <Button
            disabled={busy}
            onClick={() =>
              void change(`${card.name} is there a second time; no zone has it yet.`, (headers) =>
                api.POST("/api/treatments/{treatmentId}/copies", { headers, params, body: { name: null } }),
              ).then((made) => made && void navigate(`/treatments/${workshopId}/${made.treatmentId}`))
            }
          >
            Copy it
          </Button>
          {card.putAwayAt ? (
            <Button
              disabled={busy}
              onClick={() =>
                void change(`${card.name} is back.`, (headers) =>
                  api.POST("/api/treatments/{treatmentId}/bring-back", { headers, params }),
                )
              }
            >
              Bring back
            </Button>
          ) : (
            <Button
              disabled={busy}
              onClick={() =>
                void change(`${card.name} is put away.`, (headers) =>
                  api.POST("/api/treatments/{treatmentId}/put-away", { headers, params }),
                )
              }
            >
              Put away
            </Button>
          )}
        </span>
      </div>
      {card.cameFromId && (
        <p className="mt-1 text-xs text-soft">
          It began as{" "}
          <Link className="underline" to={`/treatments/${workshopId}/${card.cameFromId}`}>
            {card.cameFrom}
          </Link>
          .
        </p>
      )}
      <section aria-labelledby="uses" className="mt-4">
        <h3 id="uses" className="text-sm font-semibold">
          {card.uses.length === 0
            ? "No zone has it"
            : card.uses.length === 1
              ? "One zone has it"
              : card.surfaces > 1
                ? `${card.uses.length} zones take its surfaces`
                : `${card.uses.length} zones have it: an edit is for all of them`}
        </h3>
        {card.uses.length === 0 && (
          <p className="text-xs text-soft">
            Give it to a zone on the plan, by the name of its treatment above the stack.
          </p>
        )}
        <ul className="mt-1 grid max-w-3xl gap-x-6 sm:grid-cols-2">
          {card.uses.map((u) => (
            <li key={u.zoneId} className="border-t border-line py-1 text-sm">
              <Link
                className="inline-flex min-h-6 items-center underline"
                to={`/plan/${u.setId}/${u.zoneId}`}
              >
                {u.zone}, {u.design}
              </Link>
              {sets.length > 1 && <span className="text-xs text-soft"> · {u.set}</span>}
            </li>
          ))}
        </ul>
      </section>
      <Order card={card} others={others} workshopId={workshopId} />
      <Versions card={card} workshopId={workshopId} />
    </article>
  );
}
