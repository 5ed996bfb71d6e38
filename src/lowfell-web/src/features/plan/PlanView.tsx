import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useState } from "react";
import { hindered } from "../../api/hindered";
import { Navigate, useNavigate, useParams } from "react-router";
import type { Schema } from "../../api/client";
import { materialsQuery, overviewQuery, techniquesQuery, zoneQuery } from "../../api/queries";
import { inAddress, putInAddress } from "../../kit/address";
import { leave, useCommands } from "../../kit/keys";
import { useSay } from "../../kit/Toast";
import { Trouble } from "../../kit/Trouble";
import { outbox } from "../../api/outbox";
import { DesignList } from "./DesignList";
import { takeUp } from "./stackKeeper";
import { tabs, type Tab } from "./types";
import { zoneFrom } from "./walk";
import { ZoneBench } from "./ZoneBench";

/** Designs on the left, the zone's section and stack in the middle, what the stack says on the right. */
export function Component() {
  const { setId = "", zoneId } = useParams();
  const navigate = useNavigate();
  const say = useSay();
  const [tab, setTab] = useState<Tab>(() => tabs.find((t) => t === inAddress("tab")) ?? "remarks");
  useEffect(() => putInAddress({ tab: tab === "remarks" ? null : tab }), [tab, zoneId]);
  const overview = useQuery(overviewQuery(setId));
  const techniques = useQuery(techniquesQuery);
  const materials = useQuery({
    ...materialsQuery(overview.data?.workshopId ?? ""),
    enabled: !!overview.data,
  });
  // What an earlier page could not store lies over what comes from the server.
  const kept = useQuery({
    queryKey: ["outbox"],
    staleTime: Infinity,
    gcTime: Infinity,
    queryFn: async () => {
      takeUp(await outbox.all(takeUp));
      return true;
    },
  });
  const sheet = useQuery({ ...zoneQuery(zoneId ?? ""), enabled: !!zoneId });

  // The set speaks first: a zone of a set that is not there is not the thing to mend.
  const first = overview.data?.designs[0]?.zones[0];
  const error = hindered(overview) ?? (overview.data ? hindered(sheet, techniques, materials) : null);
  const come = !!kept.data && !!sheet.data && !!materials.data && !!techniques.data;
  // Name and designs are drawn first, the bench of the zone in the frames after; meanwhile the page listens.
  const drawn = useDeferredValue(come ? zoneId : null, null);
  const there = come && drawn === zoneId;
  const walk = (by: number, of: "zones" | "designs") => () => {
    const to = zoneFrom(overview.data?.designs ?? [], zoneId, by, of);
    if (to) leave(() => void navigate(`/plan/${setId}/${to}`, { replace: true }));
    else say(by > 0 ? "That was the last of the set." : "That was the first of the set.");
  };
  const commands = [
    { id: "zone next", key: ".", says: "next zone", run: walk(1, "zones") },
    { id: "zone before", key: ",", says: "zone before", run: walk(-1, "zones") },
    { id: "design next", key: ">", says: "next design", run: walk(1, "designs") },
    { id: "design before", key: "<", says: "design before", run: walk(-1, "designs") },
  ];
  useCommands("Plan", commands, {
    view: true,
    ready: !!error || there || (!!overview.data && !zoneId && !first),
  });
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
  if (!zoneId && first) return <Navigate to={`/plan/${setId}/${first.id}`} replace />;
  return (
    <div className="h-full min-h-0 overflow-y-auto md:grid md:grid-cols-[208px_minmax(0,1fr)] md:overflow-visible xl:grid-cols-[226px_minmax(0,1fr)]">
      <DesignList overview={overview.data} zoneId={zoneId} />
      {there && sheet.data && materials.data && techniques.data ? (
        <ZoneBench
          key={`${sheet.data.surfaceId} ${measuresOf(sheet.data.zone)}`}
          tab={tab}
          onTab={setTab}
          sheet={sheet.data}
          overview={overview.data}
          materials={materials.data}
          techniques={techniques.data}
        />
      ) : (
        <div className="px-4 pt-2.5">
          {zoneId && <h1 className="text-lg font-semibold">{nameOf(overview.data, zoneId)}</h1>}
          <p className="py-2 text-soft">
            {zoneId ? "Reading the zone…" : "This set has no designs yet. Add one on the left."}
          </p>
        </div>
      )}
    </div>
  );
}

const nameOf = (set: Schema["PlanOverview"], zoneId: string) =>
  set.designs.flatMap((d) => d.zones).find((z) => z.id === zoneId)?.name ?? "Zone";

/** A zone with other measures is another bench; a wanted colour changes nothing that is being edited. */
const measuresOf = (zone: Schema["ZoneDto"]) =>
  JSON.stringify({ ...zone, version: 0, targetColour: null, targetPosition: null });
