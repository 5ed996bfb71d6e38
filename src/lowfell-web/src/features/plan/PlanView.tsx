import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Navigate, useParams } from "react-router";
import { api, take, type Schema } from "../../api/client";
import { materialsQuery, overviewQuery, techniquesQuery } from "../../api/queries";
import { Trouble } from "../../kit/Trouble";
import { DesignList } from "./DesignList";
import { ZoneBench, type Tab } from "./ZoneBench";

/** Designs on the left, the zone's section and stack in the middle, what the stack says on the right. */
export function Component() {
  const { setId = "", zoneId } = useParams();
  const [tab, setTab] = useState<Tab>("remarks");
  const overview = useQuery(overviewQuery(setId));
  const techniques = useQuery(techniquesQuery);
  const materials = useQuery({
    ...materialsQuery(overview.data?.workshopId ?? ""),
    enabled: !!overview.data,
  });
  const sheet = useQuery({
    queryKey: ["zone", zoneId],
    enabled: !!zoneId,
    // A stack being edited is never replaced under the painter's hands; conflicts are told when storing.
    staleTime: Infinity,
    gcTime: 0,
    queryFn: ({ signal }) =>
      take(api.GET("/api/plan/zones/{zoneId}", { params: { path: { zoneId: zoneId! } }, signal })),
  });

  // The set speaks first: a zone of a set that is not there is not the thing to mend.
  const error = overview.error ?? (overview.data && (sheet.error ?? techniques.error ?? materials.error));
  if (error)
    return (
      <Trouble
        error={error}
        retry={() => {
          void overview.refetch();
          void techniques.refetch();
          if (zoneId) void sheet.refetch();
          if (overview.data) void materials.refetch();
        }}
      />
    );
  if (!overview.data) return <p className="p-6 text-soft">Reading the set…</p>;
  const first = overview.data.designs[0]?.zones[0];
  if (!zoneId && first) return <Navigate to={`/plan/${setId}/${first.id}`} replace />;
  return (
    <div className="grid h-full min-h-0 grid-cols-[208px_minmax(0,1fr)] xl:grid-cols-[226px_minmax(0,1fr)]">
      <DesignList overview={overview.data} zoneId={zoneId} />
      {sheet.data && materials.data && techniques.data ? (
        <ZoneBench
          key={measuresOf(sheet.data.zone)}
          tab={tab}
          onTab={setTab}
          sheet={sheet.data}
          overview={overview.data}
          materials={materials.data}
          techniques={techniques.data}
        />
      ) : (
        <p className="p-6 text-soft">
          {zoneId ? "Reading the zone…" : "This set has no designs yet. Add one on the left."}
        </p>
      )}
    </div>
  );
}

/** A zone with other measures is another bench; a wanted colour changes nothing that is being edited. */
const measuresOf = (zone: Schema["ZoneDto"]) =>
  JSON.stringify({ ...zone, version: 0, targetColour: null, targetPosition: null });
