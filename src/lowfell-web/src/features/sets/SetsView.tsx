import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { setsQuery, workshopsQuery } from "../../api/queries";
import { turnAndSay } from "../../api/undo";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { Menu } from "../../kit/Menu";
import { plural } from "../../kit/severity";
import { useSay } from "../../kit/Toast";
import { Trouble } from "../../kit/Trouble";
import { Copies } from "./Copies";
import { FromFile } from "./FromFile";
import { PutAwayPhotos } from "./PutAwayPhotos";
import { SetPicture } from "./SetPicture";
import { removed, useChange } from "../../shared/useChange";
import { WorkshopFacts } from "./WorkshopFacts";

/** Every set of a workshop: what it will look like, what is left to do, when it is wanted. */
export function Component() {
  const { workshopId = "" } = useParams();
  const navigate = useNavigate();
  const sets = useQuery(setsQuery(workshopId));
  const workshops = useQuery(workshopsQuery);
  const error = hindered(sets, workshops);
  const workshop = workshops.data?.find((w) => w.id === workshopId);
  const [facts, setFacts] = useState(false);
  useCommands(
    "All sets",
    [
      { id: "set new", key: "n", says: "a new set", run: () => void navigate(`/start/${workshopId}`) },
      { id: "workshop facts", key: "i", says: "facts of the workshop", run: () => setFacts(true) },
    ],
    { view: true, ready: !!error || (!!sets.data && !!workshops.data) },
  );
  if (error) return <Trouble error={error} retry={() => void sets.refetch()} />;
  if (!sets.data || !workshop) return <p className="p-6 text-soft">Reading the sets…</p>;
  const here = sets.data.filter((s) => !s.putAwayAt);
  const away = sets.data.filter((s) => s.putAwayAt);
  return (
    <div className="h-full overflow-y-auto px-5 pt-3 pb-8">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-lg font-semibold">Sets of {workshop.name}</h1>
        <span className="ml-auto flex gap-1.5">
          <Button aria-haspopup="dialog" onClick={() => setFacts(true)}>
            Facts of the workshop
          </Button>
          <FromFile workshopId={workshopId} />
          <Button tone="plain" onClick={() => void navigate(`/start/${workshopId}`)}>
            New set
          </Button>
        </span>
      </div>
      {here.length === 0 && (
        <p className="mt-3 max-w-xl border-l-[3px] border-line bg-card px-3 py-2">
          No set is on this bench. Make a new one in five steps, or bring one back.
        </p>
      )}
      <ul
        className="mt-3 grid gap-4 [grid-template-columns:repeat(auto-fill,minmax(min(100%,300px),1fr))]"
        aria-label="Sets"
      >
        {here.map((s, i) => (
          <Card key={s.id} card={s} at={i} of={here.length} others={here} workshopId={workshopId} />
        ))}
      </ul>
      {away.length > 0 && (
        <section aria-label="Put away" className="mt-6">
          <h2 className="text-sm font-semibold">Put away</h2>
          <p className="text-xs text-soft">Out of the lists; everything about them stays.</p>
          <ul className="mt-1 max-w-3xl">
            {away.map((s) => (
              <Away key={s.id} card={s} workshopId={workshopId} />
            ))}
          </ul>
        </section>
      )}
      <Gone workshopId={workshopId} />
      <Copies />
      <PutAwayPhotos workshopId={workshopId} />
      {facts && <WorkshopFacts workshop={workshop} onClose={() => setFacts(false)} />}
    </div>
  );
}

function Card(props: {
  card: Schema["SetCard"];
  at: number;
  of: number;
  others: Schema["SetCard"][];
  workshopId: string;
}) {
  const { card, at, of, others, workshopId } = props;
  const [change, busy] = useChange(workshopId);
  const navigate = useNavigate();
  const path = { path: { id: card.id } };
  const rank = (to: number) =>
    void change(null, (headers) =>
      api.PUT("/api/sets/{setId}", {
        headers,
        params: { path: { setId: card.id } },
        body: { ...nothing, version: card.version, rank: to },
      }),
    );
  return (
    <li className="flex flex-col border border-line bg-card" data-set={card.name}>
      <Link to={`/plan/${card.id}`} className="block hover:opacity-90">
        <SetPicture card={card} />
        <span className="block px-3 pt-2 font-semibold break-words">{card.name}</span>
      </Link>
      <div className="flex-1 px-3 text-xs">
        <p>
          1:{card.scale} · {plural(card.designs, "design")} · {plural(card.pieces, "piece")} · seen from{" "}
          {card.tableMetres} m
        </p>
        <p className="text-soft">
          {card.handling}, {card.targetSheen}
          {card.dueDate && ` · wanted ${day(card.dueDate)}`}
        </p>
        <Done done={card.layersDone} all={card.layersAll} />
      </div>
      <div className="flex flex-wrap items-center gap-1.5 px-3 py-2">
        <Link
          to={`/set/${card.id}`}
          className="min-h-[26px] rounded-[3px] border border-line px-2.5 py-[3px] text-xs leading-tight hover:border-ink"
          aria-label={`Change ${card.name}`}
        >
          Change
        </Link>
        <Button disabled={busy || at === 0} aria-label={`${card.name} before`} onClick={() => rank(at - 1)}>
          ↑
        </Button>
        <Button
          disabled={busy || at === of - 1}
          aria-label={`${card.name} after`}
          onClick={() => rank(at + 1)}
        >
          ↓
        </Button>
        <span className="ml-auto text-xs">
          <Menu
            label={`More of ${card.name}`}
            says="More"
            end
            groups={[
              {
                entries: [
                  {
                    text: "Copy it",
                    run: () =>
                      void change(
                        `${card.name} is there a second time, with nothing done on it.`,
                        (headers) =>
                          api.POST("/api/sets/{setId}/copies", {
                            headers,
                            params: { path: { setId: card.id } },
                            body: copy,
                          }),
                      ),
                  },
                  ...(card.layersDone > 0
                    ? [
                        {
                          text: "Copy it with what was done",
                          run: () =>
                            void change(
                              `${card.name} is there a second time, with everything that was done.`,
                              (headers) =>
                                api.POST("/api/sets/{setId}/copies", {
                                  headers,
                                  params: { path: { setId: card.id } },
                                  body: { ...copy, withWork: true },
                                }),
                            ),
                        },
                      ]
                    : []),
                  {
                    text: "Keep it as a file",
                    run: () => window.location.assign(`/api/sets/${card.id}/file`),
                  },
                  {
                    text: "Put it away",
                    run: () =>
                      void change(removed, (headers) =>
                        api.POST("/api/sets/{id}/put-away", { headers, params: path }),
                      ),
                  },
                  {
                    text: "Remove it",
                    run: () =>
                      void change(removed, (headers) =>
                        api.DELETE("/api/sets/{id}", { headers, params: path }),
                      ),
                  },
                ],
              },
              ...(others.length > 1
                ? [
                    {
                      name: "Take all designs out of",
                      entries: others
                        .filter((o) => o.id !== card.id)
                        .map((o) => ({
                          text: o.name,
                          run: () =>
                            void change(`The designs of ${o.name} are in ${card.name} now.`, (headers) =>
                              api.POST("/api/sets/{setId}/merges", {
                                headers,
                                params: { path: { setId: card.id } },
                                body: { fromSetId: o.id, designs: null },
                              }),
                            ),
                        })),
                    },
                  ]
                : []),
              {
                entries: [{ text: "Designs, pieces and zones", run: () => void navigate(`/set/${card.id}`) }],
              },
            ]}
          />
        </span>
      </div>
    </li>
  );
}

function Done({ done, all }: { done: number; all: number }) {
  const share = all > 0 ? done / all : 0;
  return (
    <p className="mt-1.5">
      <span aria-hidden="true" className="block h-1.5 border border-line">
        <span className="block h-full bg-ink" style={{ width: `${100 * share}%` }} />
      </span>
      {done === 0
        ? `${plural(all, "layer")} to lay, counted on every piece`
        : done >= all
          ? "everything is laid"
          : `${done} of ${all} layers laid, counted on every piece`}
    </p>
  );
}

function Away({ card, workshopId }: { card: Schema["SetCard"]; workshopId: string }) {
  const [change, busy] = useChange(workshopId);
  return (
    <li className="flex flex-wrap items-center gap-3 border-t border-line py-1.5 text-sm">
      <span className="min-w-0 flex-1 truncate">
        {card.name}{" "}
        <span className="text-xs text-soft">
          1:{card.scale}, {plural(card.pieces, "piece")}
        </span>
      </span>
      <Button
        disabled={busy}
        aria-label={`Bring ${card.name} back`}
        onClick={() =>
          void change(`${card.name} is back.`, (headers) =>
            api.POST("/api/sets/{id}/bring-back", { headers, params: { path: { id: card.id } } }),
          )
        }
      >
        Bring back
      </Button>
      <Button
        disabled={busy}
        aria-label={`Remove ${card.name}`}
        onClick={() =>
          void change(removed, (headers) =>
            api.DELETE("/api/sets/{id}", { headers, params: { path: { id: card.id } } }),
          )
        }
      >
        Remove
      </Button>
    </li>
  );
}

/** Things removed within a month. */
function Gone({ workshopId }: { workshopId: string }) {
  const steps = useQuery({
    queryKey: ["steps", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/workshops/{workshopId}/steps", { params: { path: { workshopId } }, signal })),
  });
  const say = useSay();
  const gone = steps.data?.done.filter((s) => s.removes && !s.undoneAt) ?? [];
  if (gone.length === 0) return null;
  return (
    <section aria-label="Removed" className="mt-6">
      <h2 className="text-sm font-semibold">Removed within 30 days</h2>
      <ul className="mt-1 max-w-3xl">
        {gone.map((s) => (
          <li key={s.id} className="flex flex-wrap items-center gap-3 border-t border-line py-1.5 text-sm">
            <span className="min-w-0 flex-1">{s.words}</span>
            <Button
              aria-label={`Bring back: ${s.words}`}
              onClick={() => void turnAndSay(workshopId, "undo", say, s.id)}
            >
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const day = (date: string) =>
  new Date(`${date}T12:00:00`).toLocaleDateString(undefined, {
    day: "numeric",
    month: "short",
    year: "numeric",
  });

const copy: Schema["CopyIn"] = { name: null, setId: null, designId: null, withWork: null };

const nothing: Omit<Schema["SetIn"], "version"> = {
  name: null,
  scale: null,
  measuresFollow: null,
  tableMetres: null,
  handling: null,
  targetSheen: null,
  dueDate: null,
  reserveMl: null,
  rank: null,
  clear: null,
};
