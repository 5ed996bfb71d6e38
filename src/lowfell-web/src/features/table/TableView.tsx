import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { hindered } from "../../api/hindered";
import { Link, Navigate, useNavigate, useParams } from "react-router";
import { api, take, type Schema } from "../../api/client";
import { overviewQuery } from "../../api/queries";
import { relief, type Tile } from "../../drawing/relief";
import { PlaceOn, PlaceShapes } from "./Places";
import { place, pxPerMm } from "../../drawing/scene";
import { Silhouette } from "../../drawing/Silhouette";
import { inAddress, putInAddress } from "../../kit/address";
import { Slide } from "../../kit/Slide";
import { Swatch } from "../../kit/Swatch";
import { useCommands } from "../../kit/keys";
import { NotHere } from "../../kit/NotHere";
import { Trouble } from "../../kit/Trouble";
import { differs } from "../../shared/words";

/** A design as the players see it, from arm's length to the other end of the table. */
export function Component() {
  const { setId = "", designId } = useParams();
  const navigate = useNavigate();
  const overview = useQuery(overviewQuery(setId));
  const table = useQuery({
    queryKey: ["table", designId],
    enabled: !!designId,
    staleTime: 0,
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/plan/designs/{designId}/table", { params: { path: { designId: designId! } }, signal }),
      ),
  });
  const [chosen, setMetres] = useState<number | null>(() => Number(inAddress("metres")) || null);
  useEffect(() => putInAddress({ metres: chosen === null ? null : chosen.toFixed(1) }), [chosen, designId]);
  const error = hindered(overview, table);
  useCommands("From the table", [], { view: true, ready: !!error || !!overview.data });
  if (error)
    return (
      <Trouble
        error={error}
        retry={() => {
          void overview.refetch();
          if (designId) void table.refetch();
        }}
      />
    );
  if (!overview.data) return <p className="p-6 text-soft">Reading the set…</p>;
  const first = overview.data.designs[0];
  if (!designId && first) return <Navigate to={`/table/${setId}/${first.id}`} replace />;
  if (!first) return <p className="p-6 text-soft">This set has no designs yet. Add one on the plan.</p>;
  const design = overview.data.designs.find((d) => d.id === designId);
  if (!design)
    return (
      <NotHere what="This set has no such design." to={`/table/${setId}`} words="Show the first design" />
    );
  const metres = chosen ?? overview.data.tableMetres;

  return (
    <div className="h-full min-h-0 overflow-y-auto md:grid md:grid-cols-[minmax(0,1fr)_258px] md:overflow-visible xl:grid-cols-[minmax(0,1fr)_296px]">
      <div className="flex min-h-0 min-w-0 flex-col px-5 pt-3 pb-4">
        <div className="flex flex-wrap items-baseline gap-x-4">
          <h1 className="min-w-0 truncate text-lg font-semibold">{design.name}</h1>
          <span className="text-xs whitespace-nowrap text-soft">as seen from {metres.toFixed(1)} m</span>
          <div className="ml-auto w-full sm:w-72 sm:shrink-0">
            <Slide
              label="Distance of the eye"
              says={`${metres.toFixed(1)} m${metres === overview.data.tableMetres ? ", the set’s table" : ""}`}
              valueText={`${metres.toFixed(1)} metres`}
              value={metres}
              min={0.3}
              max={3}
              step={0.1}
              onChange={(m) => setMetres(Math.round(m * 10) / 10)}
            />
          </div>
        </div>
        {table.data && design ? (
          <Scene table={table.data} silhouette={design.silhouette} metres={metres} setId={setId} />
        ) : (
          <p className="p-6 text-soft">Looking…</p>
        )}
        <nav aria-label="Designs" className="mt-3 flex gap-2 overflow-x-auto">
          {overview.data.designs.map((d) => (
            <button
              key={d.id}
              type="button"
              aria-current={d.id === designId ? "true" : undefined}
              className={`flex shrink-0 flex-col items-center rounded-[3px] border px-3 py-1 text-xs ${d.id === designId ? "border-tide shadow-[inset_0_-3px_0_var(--tide)]" : "border-line hover:border-ink"}`}
              onClick={() => void navigate(`/table/${setId}/${d.id}`)}
            >
              <Silhouette shape={d.silhouette} colour={d.zones[0]?.colour} />
              {d.name}
            </button>
          ))}
        </nav>
      </div>
      <aside
        aria-label="What can be told apart"
        className="min-h-0 overflow-y-auto border-l border-line bg-aside px-3.5 pt-3 pb-4"
      >
        {table.data && <Told table={table.data} metres={metres} setId={setId} />}
      </aside>
    </div>
  );
}

const nearest = (table: Schema["TableReading"], metres: number) =>
  table.metres.reduce(
    (best, m, i) => (Math.abs(m - metres) < Math.abs(table.metres[best]! - metres) ? i : best),
    0,
  );

const W = 640;
const H = 330;

function Scene(props: {
  table: Schema["TableReading"];
  silhouette: Schema["Silhouette"];
  metres: number;
  setId: string;
}) {
  const { table, silhouette, metres } = props;
  const at = nearest(table, metres);
  const scene = useMemo(() => place(silhouette, table.zones), [silhouette, table.zones]);
  const tiles = useMemo(() => {
    const size = pxPerMm(scene.drawn);
    return scene.drawn.map(({ zone }) => relief(zone.surface, zone, size));
  }, [scene]);
  const apart = [...new Set(table.zones.flatMap((z) => z.parts?.places.map((p) => p.place) ?? []))];
  return (
    <figure className="mt-2 flex min-h-0 flex-1 flex-col">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label={`${table.name} from ${metres.toFixed(1)} metres: ${table.zones.map((z) => `${z.name} ${z.seen[at]!.field}`).join(", ")}`}
        className="block min-h-0 w-full flex-1 rounded-[3px] bg-ground"
        data-metres={table.metres[at]}
      >
        {scene.drawn.map(({ zone }, i) => (
          <Relief
            key={zone.zoneId}
            id={`relief-${i}`}
            tile={tiles[i]!}
            seen={(zone.parts?.beside ?? zone.seen)[at]!}
          />
        ))}
        {scene.drawn.flatMap(({ zone }, i) =>
          zone.parts?.places.map((p, n) => (
            <Relief
              key={`${zone.zoneId} ${p.place}`}
              id={`place-${i}-${n}`}
              tile={tiles[i]!}
              seen={p.seen[at]!}
            />
          )),
        )}
        {scene.drawn.map(
          ({ zone }, i) =>
            zone.masked && <Stripes key={zone.zoneId} id={`stripes-${i}`} seen={zone.masked[at]!} />,
        )}
        <PlaceShapes />
        {scene.bare.map((slot, i) => (
          <path key={i} d={slot.path} fill="none" stroke="var(--on-ground)" strokeDasharray="4 4" />
        ))}
        {scene.drawn.map(({ slot, zone }, i) => (
          <g key={zone.zoneId}>
            <path
              d={slot.path}
              fill={`url(#relief-${i})`}
              fillRule="evenodd"
              stroke="#000"
              strokeOpacity="0.4"
              strokeWidth="0.7"
            >
              <title>{zone.name}</title>
            </path>
            {zone.masked && <path data-masked d={slot.path} fill={`url(#stripes-${i})`} fillRule="evenodd" />}
            {zone.parts?.places.map((p, n) => (
              <PlaceOn
                key={p.place}
                place={p.place}
                d={slot.path}
                fill={`url(#place-${i}-${n})`}
                beside={`url(#relief-${i})`}
              />
            ))}
          </g>
        ))}
      </svg>
      <figcaption className="mt-1 text-xs text-soft">
        Surfaces are drawn at their true size, raised, field and recess in the zone’s own shares; the outline
        is a sketch of its kind.
        {table.zones.some((z) => z.masked) && " What a mask keeps as it was is drawn as stripes."}
        {apart.length > 0 && ` Drawn apart, since it has layers of its own: ${apart.join(", ")}.`}
        {scene.homeless.length > 0 && ` Not in the sketch: ${scene.homeless.map((z) => z.name).join(", ")}.`}
      </figcaption>
    </figure>
  );
}

/** A tile of a zone's surface in its colours. */
function Relief({ id, tile, seen }: { id: string; tile: Tile; seen: Schema["SeenAt"] }) {
  return (
    <pattern id={id} width={tile.width} height={tile.height} patternUnits="userSpaceOnUse">
      <rect width={tile.width} height={tile.height} fill={seen[tile.ground]} />
      {tile.over.map((o) => (
        <path key={o.where} d={o.d} fill={seen[o.where]} />
      ))}
      {tile.rivets && <path d={tile.rivets} fill={seen.raised} stroke={seen.recess} strokeWidth="0.5" />}
    </pattern>
  );
}

/** Stripes across a zone: what a mask kept as it was, between what came over it. */
function Stripes({ id, seen }: { id: string; seen: Schema["SeenAt"] }) {
  return (
    <pattern id={id} width="22" height="22" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <rect width="11" height="22" fill={seen.field} />
    </pattern>
  );
}

function Told({ table, metres, setId }: { table: Schema["TableReading"]; metres: number; setId: string }) {
  const at = nearest(table, metres);
  const name = (id: string) => table.zones.find((z) => z.zoneId === id);
  const pairs = [...table.pairs].sort((a, b) => a.differences[at]! - b.differences[at]!);
  return (
    <>
      <h2 className="mb-1 text-xs text-soft">Zones from here</h2>
      <ul aria-label="Zones">
        {table.zones.map((z) => {
          const s = z.seen[at]!;
          return (
            <li key={z.zoneId} className="flex items-center gap-2 border-t border-line py-1 text-xs">
              <span className="grid w-[72px] shrink-0 grid-cols-3">
                <Swatch colour={s.recess} name="recess" className="h-6 w-full" />
                <Swatch colour={s.field} name="field" className="h-6 w-full" />
                <Swatch colour={s.raised} name="raised" className="h-6 w-full" />
              </span>
              <Link className="min-w-0 truncate underline" to={`/plan/${setId}/${z.zoneId}`}>
                {z.name}
              </Link>
            </li>
          );
        })}
      </ul>
      {pairs.length > 0 && (
        <>
          <h2 className="mt-4 mb-1 text-xs text-soft">Side by side, nearest in colour first</h2>
          <ul aria-label="Touching zones">
            {pairs.map((p) => {
              const [a, b] = [name(p.first), name(p.second)];
              const verdict = p.verdicts[at]!;
              return (
                <li
                  key={p.first + p.second}
                  className="flex items-center gap-2 border-t border-line py-1 text-xs"
                  data-pair={verdict}
                >
                  <span className="grid w-12 shrink-0 grid-cols-2">
                    <Swatch colour={a!.seen[at]!.field} name={a!.name} className="h-6 w-full" />
                    <Swatch colour={b!.seen[at]!.field} name={b!.name} className="h-6 w-full" />
                  </span>
                  <span className="min-w-0 flex-1">
                    <span className="block truncate">
                      {a!.name}, {b!.name}
                    </span>
                    <span
                      className={
                        verdict === "seen" ? "text-soft" : verdict === "just" ? "text-amber" : "text-signal"
                      }
                    >
                      {verdict === "seen"
                        ? "told apart"
                        : verdict === "just"
                          ? "◐ hard to tell apart"
                          : "○ cannot be told apart"}
                    </span>
                  </span>
                  <b>{differs(p.differences[at]!)}</b>
                </li>
              );
            })}
          </ul>
        </>
      )}
    </>
  );
}
