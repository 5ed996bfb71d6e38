import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Silhouette } from "../../drawing/Silhouette";
import { Button } from "../../kit/Button";
import { Later } from "../../kit/Later";
import { useCommands } from "../../kit/keys";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { Design } from "./Design";
import { setQuery, setsQuery } from "../../api/queries";
import { SetFacts } from "./SetFacts";

const labelsSheet = () => import("./LabelsSheet").then((m) => m.LabelsSheet);
const addDesign = () => import("../../shared/designs/AddDesign").then((m) => m.default);

/** One set: its facts, and on the right the design in hand with its zones and pieces. */
export function Component() {
  const { setId = "", designId } = useParams();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const sheet = useQuery(setQuery(setId));
  const sets = useQuery({ ...setsQuery(sheet.data?.workshopId ?? ""), enabled: !!sheet.data });
  const error = hindered(sheet);
  const [facts, setFacts] = useState(false);
  const [adding, setAdding] = useState(false);
  const designs = sheet.data?.designs ?? [];
  const here = designs.filter((d) => !d.putAwayAt);
  const chosen = designs.find((d) => d.id === designId) ?? here[0];
  const walk = (by: number) => () => {
    const to = here[here.findIndex((d) => d.id === chosen?.id) + by];
    if (to) void navigate(`/set/${setId}/${to.id}`, { replace: true });
  };
  useCommands(
    "This set",
    [
      { id: "set facts", key: "i", says: "facts of the set", run: () => setFacts(true) },
      { id: "design add", key: "n", says: "add a design", run: () => setAdding(true) },
      { id: "design next", key: ".", says: "next design", run: walk(1) },
      { id: "design before", key: ",", says: "design before", run: walk(-1) },
    ],
    { view: true, ready: !!error || !!sheet.data },
  );
  if (error) return <Trouble error={error} retry={() => void sheet.refetch()} />;
  if (!sheet.data) return <p className="p-6 text-soft">Reading the set…</p>;
  const set = sheet.data;
  if (search.has("labels")) return <Later load={labelsSheet} wanted with={{ set }} />;
  return (
    <div className="h-full min-h-0 overflow-y-auto md:grid md:grid-cols-[250px_minmax(0,1fr)] md:overflow-hidden">
      <aside className="border-line pb-4 md:pane md:border-r">
        <div className="px-4 pt-3">
          <h1 className="text-lg font-semibold break-words">{set.name}</h1>
          <p className="text-xs text-soft">
            1:{set.scale} · seen from {set.tableMetres} m · {set.handling} · {set.targetSheen}
            {set.dueDate && ` · wanted by ${set.dueDate}`}
            {set.putAwayAt && " · put away"}
          </p>
          <div className="mt-2 flex flex-wrap gap-1.5">
            <Button tone="plain" aria-haspopup="dialog" onClick={() => setFacts(true)}>
              Facts of the set
            </Button>
            <Button aria-haspopup="dialog" onClick={() => setAdding(true)}>
              Add a design
            </Button>
            <Link className="inline-flex min-h-6 items-center text-xs underline" to="?labels">
              Labels to print
            </Link>
          </div>
        </div>
        <List title="Designs" designs={here} chosen={chosen?.id} setId={setId} />
        <List
          title="Put away"
          designs={designs.filter((d) => d.putAwayAt)}
          chosen={chosen?.id}
          setId={setId}
        />
      </aside>
      <div className="min-w-0 px-5 pt-3 pb-8 md:pane">
        {chosen ? (
          <Design
            key={chosen.id}
            set={set}
            design={chosen}
            at={here.indexOf(chosen)}
            of={here.length}
            sets={sets.data ?? []}
          />
        ) : (
          <p className="text-soft">This set has no designs yet. Add one on the left.</p>
        )}
      </div>
      {facts && <SetFacts sheet={set} onClose={() => setFacts(false)} />}
      {adding && (
        <Later
          load={addDesign}
          wanted
          with={{
            setId,
            workshopId: set.workshopId,
            onClose: () => setAdding(false),
            onMade: () => void sheet.refetch(),
          }}
        />
      )}
    </div>
  );
}

function List(props: { title: string; designs: Schema["DesignSheet"][]; chosen?: string; setId: string }) {
  const { title, designs, chosen, setId } = props;
  if (designs.length === 0) return null;
  return (
    <nav aria-label={title} className="mt-3">
      <h2 className="px-4 text-xs text-soft">{title}</h2>
      <ul>
        {designs.map((d) => (
          <li key={d.id}>
            <Link
              to={`/set/${setId}/${d.id}`}
              replace
              aria-current={d.id === chosen ? "page" : undefined}
              className={`flex items-center gap-2.5 px-4 py-1.5 ${d.id === chosen ? "bg-card shadow-[inset_3px_0_0_var(--tide)]" : "hover:bg-aside"}`}
            >
              <Silhouette shape={d.silhouette} />
              <span className="min-w-0 leading-tight">
                <span className="block truncate font-semibold">{d.name}</span>
                <span className="text-xs text-soft">
                  {plural(d.pieces.filter((p) => !p.putAwayAt && !p.parentId).length, "piece")},{" "}
                  {plural(d.zones.filter((z) => !z.putAwayAt).length, "zone")}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </nav>
  );
}
