import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { useCommands } from "../../kit/keys";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import type { Schema } from "../../api/client";
import { PlanSheet } from "./PlanSheet";

type Entry = Schema["VariationEntry"];

/** How the pieces of a set differ: layers with a plan over all pieces, and those that could have one. */
export function Component() {
  const { setId = "", treatmentId, layerId } = useParams();
  const navigate = useNavigate();
  const list = useQuery({
    queryKey: ["variations", setId],
    queryFn: ({ signal }) => take(api.GET("/api/variation/{setId}", { params: { path: { setId } }, signal })),
  });
  const all = list.data?.layers ?? [];
  const chosen =
    all.find((e) => e.layerId === layerId && e.treatmentId === treatmentId) ??
    all.find((e) => e.varied) ??
    all[0];
  const to = (e: Entry) => `/variation/${setId}/${e.treatmentId}/${e.layerId}`;
  const walk = (by: number) => () => {
    const next = chosen && all[all.indexOf(chosen) + by];
    if (next) void navigate(to(next), { replace: true });
  };
  useCommands(
    "Layers that vary",
    [
      { id: "variation next", key: ".", says: "next layer", run: walk(1) },
      { id: "variation before", key: ",", says: "layer before", run: walk(-1) },
    ],
    { view: true, ready: !!list.data || !!hindered(list) },
  );
  const error = hindered(list);
  if (error) return <Trouble error={error} retry={() => void list.refetch()} />;
  if (!list.data) return <p className="p-6 text-soft">Reading the layers…</p>;
  const rows = (entries: Entry[]) =>
    entries.map((e) => (
      <li key={`${e.treatmentId} ${e.layerId}`}>
        <Link
          to={to(e)}
          replace
          aria-current={e === chosen ? "page" : undefined}
          className={`-mx-4 block px-4 py-1.5 leading-tight ${e === chosen ? "bg-card shadow-[inset_3px_0_0_var(--tide)]" : "hover:bg-aside"}`}
        >
          <span className="block font-semibold break-words">
            {e.technique} {e.paint}
          </span>
          <span className="block text-xs text-soft">
            layer {e.number} of {e.treatment} · {plural(e.pieces, "piece")}
          </span>
        </Link>
      </li>
    ));
  const could = all.filter((e) => !e.varied);
  return (
    <div className="h-full min-h-0 overflow-y-auto md:grid md:grid-cols-[240px_minmax(0,1fr)] md:overflow-hidden print:block print:h-auto">
      <nav
        aria-label="Layers that vary"
        className="no-print border-line px-4 pt-3 pb-4 text-sm max-md:max-h-64 max-md:overflow-y-auto max-md:border-b md:pane md:border-r"
      >
        <p className="text-xs text-soft">
          Patches, stains, chips and moss that differ from piece to piece and belong together.
        </p>
        <ul aria-label="With a plan" className="mt-2">
          {rows(all.filter((e) => e.varied))}
        </ul>
        {could.length > 0 && (
          <>
            <h2 className="mt-4 text-xs text-soft">Could be varied</h2>
            <ul aria-label="Could be varied" className="mt-1">
              {rows(could)}
            </ul>
          </>
        )}
      </nav>
      <div className="min-w-0 md:pane print:overflow-visible">
        {chosen ? (
          <PlanSheet
            key={`${chosen.treatmentId} ${chosen.layerId}`}
            setId={setId}
            treatmentId={chosen.treatmentId}
            layerId={chosen.layerId}
            workshopId={list.data.workshopId}
          />
        ) : (
          <p className="p-6 text-soft">
            Nothing here to vary yet. Give a treatment patches, chips, speckles or streaks, or a layer several
            materials.
          </p>
        )}
      </div>
    </div>
  );
}
