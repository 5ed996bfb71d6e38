import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { overviewQuery } from "../../api/queries";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { NewTrial } from "./NewTrial";
import { TrialSheet } from "./TrialSheet";

/** Trials of a set: asked, laid out on a tile, predicted, looked at, learned from. */
export function Component() {
  const { setId = "", trialId } = useParams();
  const navigate = useNavigate();
  const overview = useQuery(overviewQuery(setId));
  const trials = useQuery({
    queryKey: ["trials", setId],
    queryFn: ({ signal }) => take(api.GET("/api/trials/{setId}", { params: { path: { setId } }, signal })),
  });
  const [making, setMaking] = useState(false);
  const error = hindered(overview) ?? hindered(trials);
  const all = trials.data?.trials ?? [];
  const here = all.filter((t) => !t.putAway);
  const chosen = all.find((t) => t.id === trialId) ?? here[0];
  const walk = (by: number) => () => {
    const to = here[here.findIndex((t) => t.id === chosen?.id) + by];
    if (to) void navigate(`/trials/${setId}/${to.id}`, { replace: true });
  };
  useCommands(
    "Trials",
    [
      { id: "trial new", key: "x", says: "a new trial", run: () => setMaking(true) },
      { id: "trial next", key: ".", says: "next trial", run: walk(1) },
      { id: "trial before", key: ",", says: "trial before", run: walk(-1) },
    ],
    { view: true, ready: !!error || (!!trials.data && !!overview.data) },
  );
  if (error)
    return <Trouble error={error} retry={() => void Promise.all([overview.refetch(), trials.refetch()])} />;
  if (!trials.data || !overview.data) return <p className="p-6 text-soft">Reading the trials…</p>;
  const away = all.filter((t) => t.putAway);
  return (
    <div className="h-full min-h-0 overflow-y-auto md:grid md:grid-cols-[220px_minmax(0,1fr)] md:overflow-hidden print:block print:h-auto">
      <div className="no-print border-line px-4 pt-3 pb-4 max-md:border-b md:pane md:border-r">
        <h1 className="text-lg font-semibold">Trials</h1>
        <p className="mt-1 text-xs text-soft">
          What to find out on a tile before the set: every level of one to three layers with every other.
        </p>
        <Button tone="go" className="mt-2" aria-haspopup="dialog" onClick={() => setMaking(true)}>
          New trial… <kbd aria-hidden="true">x</kbd>
        </Button>
        <ul aria-label="Trials" className="mt-3">
          {here.map((t) => (
            <li key={t.id}>
              <Link
                to={`/trials/${setId}/${t.id}`}
                replace
                aria-current={t.id === chosen?.id ? "page" : undefined}
                className={`-mx-4 block px-4 py-1.5 leading-tight ${t.id === chosen?.id ? "bg-card shadow-[inset_3px_0_0_var(--tide)]" : "hover:bg-aside"}`}
              >
                <span className="block font-semibold break-words">{t.name}</span>
                <span className="block text-xs text-soft">
                  {t.zone}, {t.design} · {plural(t.cells, "field")}
                  {t.looks > 0 && ` · ${t.looks === 1 ? "1 look" : `${t.looks} looks`}`}
                  {t.chosen && " · chosen"}
                </span>
              </Link>
            </li>
          ))}
        </ul>
        {away.length > 0 && (
          <details className="mt-3 text-sm">
            <summary className="min-h-6 cursor-pointer text-soft">Put away ({away.length})</summary>
            <ul>
              {away.map((t) => (
                <li key={t.id}>
                  <Link to={`/trials/${setId}/${t.id}`} replace className="block min-h-6 underline">
                    {t.name}
                  </Link>
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
      <div className="min-w-0 md:pane print:overflow-visible">
        {chosen ? (
          <TrialSheet key={chosen.id} setId={setId} trialId={chosen.id} workshopId={trials.data.workshopId} />
        ) : (
          <p className="p-6 text-soft">
            No trial yet. <i>New trial</i> proposes what would tell most about a treatment, and lays it out.
          </p>
        )}
      </div>
      {making && (
        <NewTrial
          setId={setId}
          workshopId={trials.data.workshopId}
          designs={overview.data.designs}
          onClose={() => setMaking(false)}
          onMade={(id) => {
            setMaking(false);
            void navigate(`/trials/${setId}/${id}`, { replace: true });
          }}
        />
      )}
    </div>
  );
}
