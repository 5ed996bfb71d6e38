import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Navigate, useNavigate, useParams } from "react-router";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { overviewQuery } from "../../api/queries";
import { useCommands } from "../../kit/keys";
import { plural } from "../../kit/severity";
import { Tabs } from "../../kit/Tabs";
import { Trouble } from "../../kit/Trouble";
import { AsTable } from "./AsTable";
import { Button } from "../../kit/Button";
import { Differences } from "./Differences";
import { Drawing } from "./Drawing";
import { MatchDialog } from "./MatchDialog";
import { Story } from "./Story";
import { differing, type Cores } from "./cores";
import { ZoneList } from "./ZoneList";

/** What is really on every piece, side by side: the same layer tied across, and a broken tie is the thing to look at. */
export function Component() {
  const { setId = "", zoneId } = useParams();
  const navigate = useNavigate();
  const overview = useQuery(overviewQuery(setId));
  const zones = overview.data?.designs.flatMap((d) => d.zones) ?? [];
  const at = zones.findIndex((z) => z.id === zoneId);
  const cores = useQuery({
    queryKey: ["cores", setId, zoneId],
    enabled: !!zoneId,
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/pieces/{setId}/cores", {
          params: { path: { setId }, query: { zoneId: zoneId! } },
          signal,
        }),
      ),
  });
  const [only, setOnly] = useState(false);
  const error = hindered(overview) ?? hindered(cores);
  const walk = (by: number) => () => {
    const to = zones[at + by];
    if (to) void navigate(`/pieces/${setId}/${to.id}`, { replace: true });
  };
  useCommands(
    "Cores",
    [
      { id: "cores next", key: ".", says: "next zone", run: walk(1) },
      { id: "cores before", key: ",", says: "zone before", run: walk(-1) },
      { id: "cores only", key: "o", says: "only pieces that differ", run: () => setOnly(!only) },
    ],
    { view: true, ready: !!error || !!cores.data },
  );
  if (error) return <Trouble error={error} retry={() => void cores.refetch()} />;
  if (overview.data && (!zoneId || at < 0)) {
    const first = zones[0];
    if (first) return <Navigate to={`/pieces/${setId}/${first.id}`} replace />;
    return <p className="p-6 text-soft">This set has no zones yet, and so no cores.</p>;
  }
  if (!cores.data || !overview.data) return <p className="p-6 text-soft">Laying the cores side by side…</p>;
  return (
    <div className="flex h-full min-h-0 flex-col overflow-y-auto md:grid md:grid-cols-[190px_minmax(0,1fr)_280px] md:overflow-visible">
      <ZoneList setId={setId} designs={overview.data.designs} zoneId={zoneId!} />
      <SideBySide key={zoneId} setId={setId} cores={cores.data} only={only} onOnly={setOnly} />
    </div>
  );
}

type Tab = "drawing" | "table";

function SideBySide(props: { setId: string; cores: Cores; only: boolean; onOnly: (only: boolean) => void }) {
  const { setId, cores, only } = props;
  const [tab, setTab] = useState<Tab>("drawing");
  const [pieceId, setPieceId] = useState<string | null>(null);
  const [more, setMore] = useState(false);
  const pieces = only ? cores.pieces.filter(differing) : cores.pieces;
  const piece = cores.pieces.find((p) => p.id === pieceId) ?? null;
  const count = cores.pieces.filter(differing).length;
  return (
    <>
      <div className="min-w-0 px-5 pt-3 pb-6 md:flex md:min-h-0 md:flex-col">
        <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <h1 className="text-lg font-semibold">
            {cores.zone}, {cores.design}
          </h1>
          <p className="text-sm text-soft" role="status">
            {count === 0
              ? "✓ All pieces are alike."
              : `▲ ${plural(count, "piece")} of ${cores.pieces.length} differ.`}
          </p>
          <label className="flex min-h-6 items-center gap-1.5 text-sm">
            <input type="checkbox" checked={only} onChange={(e) => props.onOnly(e.target.checked)} />
            Only pieces that differ
          </label>
          <a
            className="inline-flex min-h-6 items-center text-sm underline"
            href={`/api/pieces/${setId}/cores.csv?zoneId=${cores.zoneId}`}
            download={`cores ${cores.design} ${cores.zone}.csv`}
          >
            As CSV
          </a>
        </div>
        <div className="mt-2 min-h-0 md:flex-1">
          <Tabs<Tab>
            label="How to look at it"
            value={tab}
            onChange={setTab}
            tabs={[
              {
                value: "drawing",
                text: "Side by side",
                body: () => <Drawing cores={cores} pieces={pieces} chosen={pieceId} onChoose={setPieceId} />,
              },
              { value: "table", text: "As a table", body: () => <AsTable cores={cores} pieces={pieces} /> },
            ]}
          />
        </div>
      </div>
      <aside
        aria-label="What differs"
        className="border-line bg-aside px-3.5 pt-3 pb-6 text-sm max-md:border-t md:pane md:border-l"
      >
        <Differences cores={cores} piece={piece} onAll={() => setPieceId(null)} onChoose={setPieceId} />
        {piece && (
          <Button aria-haspopup="dialog" className="mt-3" onClick={() => setMore(true)}>
            Make more like {piece.label}…
          </Button>
        )}
        {piece && more && (
          <MatchDialog
            setId={setId}
            workshopId={cores.workshopId}
            piece={piece}
            onClose={() => setMore(false)}
          />
        )}
        {piece && <Story setId={setId} pieceId={piece.id} label={piece.label} />}
      </aside>
    </>
  );
}
