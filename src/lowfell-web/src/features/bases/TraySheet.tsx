import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { Tabs } from "../../kit/Tabs";
import { Trouble } from "../../kit/Trouble";
import { useChange } from "../../shared/useChange";
import { BaseDrawing } from "./BaseDrawing";
import { BasePanel } from "./BasePanel";
import { Fills } from "./Fills";
import { countWords } from "./figures";
import { Totals } from "./Totals";
import { keepTray } from "./trueSize";
import { sizeWords, type Tray, type Wish } from "./types";
import { WishPanel } from "./WishPanel";

const MOST_SEED = 1_000_000,
  TRAY_PX = 3,
  NEAR_PX = 9;

/** The bases of a design: the tray, one of them large, and what is wanted on all. */
export function TraySheet({ setId, designId }: { setId: string; designId: string }) {
  const path = { setId, designId };
  const stored = useQuery({
    queryKey: ["tray", setId, designId],
    queryFn: ({ signal }) => take(api.GET("/api/bases/{setId}/{designId}", { params: { path }, signal })),
  });
  const [draft, setDraft] = useState<Wish | null>(null);
  const look = useQuery({
    queryKey: ["tray", setId, designId, draft],
    enabled: !!draft,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/bases/{setId}/{designId}/look", { params: { path }, body: { wish: draft }, signal }),
      ),
  });
  const [change, busy] = useChange(stored.data?.workshopId ?? "");
  const [at, setAt] = useState<string | null>(null);
  const [tab, setTab] = useState<"base" | "wish">("base");
  const [fromTable, setFromTable] = useState(false);
  const tray = (draft && !look.error && look.data) || stored.data;
  const wish = draft ?? stored.data?.wish;
  const base = tray?.bases.find((b) => b.pieceId === at) ?? tray?.bases[0];
  const again = () => wish && setDraft({ ...wish, seed: (wish.seed % MOST_SEED) + 1 });
  const keep = async () => {
    if (!stored.data || !wish) return;
    const kept = await change("The bases are kept as they are drawn.", (headers) =>
      api.PUT("/api/bases/{setId}/{designId}", {
        params: { path },
        headers,
        body: { version: stored.data.version ?? null, wish },
      }),
    );
    // What was wished for meanwhile stays.
    if (kept) setDraft((since) => (since === draft ? null : since));
  };
  const isKept = !draft && stored.data?.version != null;
  const walk = (by: number) => () => {
    const to = tray && base && tray.bases[tray.bases.indexOf(base) + by];
    if (to) setAt(to.pieceId);
  };
  useCommands(
    "Bases",
    [
      { id: "bases again", key: "x", says: "draw the bases again", run: again },
      {
        id: "bases keep",
        key: "v",
        says: "keep the bases as they are drawn",
        run: () => !isKept && !busy && void keep(),
      },
      { id: "base next", key: ".", says: "next base", run: walk(1) },
      { id: "base before", key: ",", says: "base before", run: walk(-1) },
    ],
    { view: true, ready: !!tray || !!hindered(stored) },
  );
  const error = hindered(stored);
  if (error) return <Trouble error={error} retry={() => void stored.refetch()} />;
  if (!tray || !wish || !stored.data) return <p className="p-6 text-soft">Laying out the bases…</p>;
  const refused = draft ? hindered(look) : null;
  return (
    <div className="lg:grid lg:h-full lg:min-h-0 lg:grid-cols-[minmax(0,1fr)_350px] print:block">
      <Fills tray={tray} id="tray" fromTable={fromTable} pxPerMm={TRAY_PX} />
      <Fills tray={tray} id="near" fromTable={false} pxPerMm={NEAR_PX} />
      <div className="min-w-0 px-5 pt-3 pb-8 lg:pane print:overflow-visible">
        <div className="flex flex-wrap items-center gap-2">
          <h1 className="text-lg font-semibold">{tray.design}</h1>
          <span className="text-xs text-soft">
            {tray.bases.length} × {sizeWords(tray.wish.shape!)} · predicted colours · draw {wish.seed}
            {draft ? " · not kept yet" : isKept ? "" : " · not kept yet"}
          </span>
          <span className="no-print ml-auto flex flex-wrap gap-2">
            <Button aria-pressed={fromTable} onClick={() => setFromTable(!fromTable)}>
              From the table
            </Button>
            <Button onClick={again}>
              Draw again <kbd aria-hidden="true">x</kbd>
            </Button>
            <Button onClick={() => window.print()}>True-size sheet</Button>
            <Button onClick={() => void keepTray(tray)}>As a PDF</Button>
            {draft && stored.data.version != null && (
              <Button onClick={() => setDraft(null)}>Back to what is kept</Button>
            )}
            {!isKept && (
              <Button tone="go" disabled={busy || !!refused} onClick={() => void keep()}>
                Keep them <kbd aria-hidden="true">v</kbd>
              </Button>
            )}
          </span>
        </div>
        {refused && (
          <p role="alert" className="mt-2 text-sm text-amber">
            ▲ {refused.message}
          </p>
        )}
        <TrayDrawing
          tray={tray}
          chosen={base?.pieceId ?? null}
          fromTable={fromTable}
          onChoose={(id) => {
            setAt(id);
            setTab("base");
          }}
        />
        <p className="no-print mt-2 text-xs text-soft">
          {tray.leastDifference != null &&
            `No two neighbours are nearer than ${tray.leastDifference} in arrangement (at least ${tray.wantedDifference} is wanted). `}
          {fromTable &&
            `In the colours they have from ${tray.tableMetres} m, as small as they are from there on a screen at arm's length.`}
        </p>
        <Totals
          tray={tray}
          busy={busy || !!draft}
          onPlan={() =>
            void change("Areas and counts are in the plan.", (headers) =>
              api.POST("/api/bases/{setId}/{designId}/plan", { params: { path }, headers }),
            )
          }
        />
        <TrueSize tray={tray} />
      </div>
      <aside
        aria-label="One base, and what is wanted"
        className="no-print border-line bg-aside px-4 pt-3 pb-6 max-lg:border-t lg:pane lg:border-l"
      >
        <Tabs
          label="Bases"
          value={tab}
          onChange={setTab}
          tabs={[
            {
              value: "base",
              text: "This base",
              body: () =>
                base && (
                  <BasePanel key={base.pieceId} tray={tray} base={base} fills="near" pxPerMm={NEAR_PX} />
                ),
            },
            {
              value: "wish",
              text: "What is wanted",
              body: () => <WishPanel tray={tray} wish={wish} onWish={setDraft} />,
            },
          ]}
        />
      </aside>
    </div>
  );
}

// Drawn as small as a base is from the table, on a screen that is so far from the eye.
const SCREEN_METRES = 0.6,
  PX_PER_MM = 3.78;

function TrayDrawing(props: {
  tray: Tray;
  chosen: string | null;
  fromTable: boolean;
  onChoose: (id: string) => void;
}) {
  const { tray, fromTable } = props;
  const { columns } = tray.wish;
  const far = (tray.wish.shape!.widthMm * PX_PER_MM * SCREEN_METRES) / tray.tableMetres;
  return (
    <ul
      aria-label="Tray"
      className="no-print mt-3 grid justify-center gap-2 rounded-[3px] bg-ground p-4"
      style={{
        gridTemplateColumns: `repeat(${columns * 2 + 1}, ${fromTable ? `${Math.round(far / 2)}px` : "minmax(0, 1fr)"})`,
      }}
    >
      {tray.bases.map((b, i) => {
        const [row, column] = [Math.floor(i / columns), i % columns];
        return (
          <li key={b.pieceId} style={{ gridColumn: `${column * 2 + 1 + (row % 2)} / span 2` }}>
            <button
              type="button"
              data-base={b.label}
              aria-pressed={b.pieceId === props.chosen}
              aria-label={`${b.label}: ${countWords(b.elements)}${b.broken.length > 0 ? `, ${b.broken.length} broken` : ""}`}
              className={`block w-full rounded-[6px] p-0.5 ${b.pieceId === props.chosen ? "outline-2 outline-offset-1 outline-tide" : ""}`}
              onClick={() => props.onChoose(b.pieceId)}
            >
              <BaseDrawing
                tray={tray}
                base={b}
                label={b.label}
                fills="tray"
                pxPerMm={TRAY_PX}
                fromTable={fromTable}
                className="block w-full"
              />
              {!fromTable && (
                <span className="block text-center text-xs text-on-ground">
                  {b.label}
                  {b.byHand && " ✎"}
                  {b.broken.length > 0 && " ▲"}
                </span>
              )}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

/** Every base at its true size, to lay the real one on. */
function TrueSize({ tray }: { tray: Tray }) {
  return (
    <ol aria-label="At true size" className="hidden flex-wrap gap-2 print:flex">
      {tray.bases.map((b) => (
        <li key={b.pieceId} className="break-inside-avoid text-center text-xs">
          <BaseDrawing tray={tray} base={b} label={b.label} widthMm={1} />
          {b.label}
        </li>
      ))}
    </ol>
  );
}
