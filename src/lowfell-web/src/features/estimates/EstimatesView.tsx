import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { useCommands } from "../../kit/keys";
import { NotHere } from "../../kit/NotHere";
import { Trouble } from "../../kit/Trouble";
import { Costs } from "./Costs";
import { Ladder } from "./Ladder";
import { Lists } from "./Lists";
import { about } from "./worth";

/** What the work costs in minutes, and what each of them is worth from the table. */
export function Component() {
  const { setId = "", zoneId } = useParams();
  const estimates = useQuery({
    queryKey: ["estimates", setId],
    queryFn: ({ signal }) => take(api.GET("/api/estimates/{setId}", { params: { path: { setId } }, signal })),
  });
  const error = hindered(estimates);
  useCommands("Estimates", [], { view: true, ready: !!error || !!estimates.data });
  if (error) return <Trouble error={error} retry={() => void estimates.refetch()} />;
  const { data } = estimates;
  if (!data) return <p className="p-6 text-soft">Counting minutes…</p>;
  const all = data.designs.flatMap((design) => design.zones.map((zone) => ({ design, zone })));
  if (all.length === 0)
    return (
      <div className="px-5 pt-3">
        <h1 className="text-lg font-semibold">Estimates</h1>
        <p className="mt-1 text-soft">This set has no designs yet. Add one on the plan.</p>
      </div>
    );
  const chosen = zoneId
    ? all.find((a) => a.zone.id === zoneId)
    : all.reduce((most, a) => (a.zone.minutes > most.zone.minutes ? a : most));
  return (
    <div className="flex h-full min-h-0 flex-col overflow-y-auto md:grid md:grid-cols-[270px_minmax(0,1fr)] md:overflow-visible">
      <aside
        aria-label="Designs and their minutes"
        className="border-line bg-aside px-3.5 pt-3 pb-5 max-md:order-last max-md:border-t md:pane md:border-r"
      >
        <Costs reading={data} chosen={chosen?.zone.id} />
      </aside>
      <div className="px-5 pt-3 pb-8 md:pane">
        <h1 className="text-lg font-semibold">Estimates</h1>
        <p className="text-sm">
          <b>{about(data.minutes, data.typicalError)}</b> of work with hands on are still to do.{" "}
          <span className="text-soft">
            Estimates, from rules of thumb: setting up, handling and a quicker hand with every piece are in
            them, drying is not.
          </span>
        </p>
        {chosen ? (
          <Ladder design={chosen.design} zone={chosen.zone} reading={data} />
        ) : (
          <NotHere what="This set has no such zone." to={`/estimates/${setId}`} words="Show the dearest" />
        )}
        <Lists reading={data} />
      </div>
    </div>
  );
}
