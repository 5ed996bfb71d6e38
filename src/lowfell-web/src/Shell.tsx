import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, Outlet, useLocation, useNavigate, useParams } from "react-router";
import { readAgain } from "./api/cache";
import { Troubles } from "./Troubles";
import { useHasUnfit } from "./useHasUnfit";
import { useChanges } from "./api/changes";
import { api, Refused } from "./api/client";
import { overviewQuery, workshopsQuery } from "./api/queries";
import { turnAndSay } from "./api/undo";
import { write } from "./api/writes";
import { Finder } from "./Finder";
import { currentBench, switchBench } from "./kit/bench";
import { keepFocusHome } from "./kit/focusHome";
import type { Command } from "./kit/keyboard";
import { leave, useAllCommands, useCommands } from "./kit/keys";
import { KeysDialog } from "./kit/KeysDialog";
import { Menu } from "./kit/Menu";
import { Tip } from "./kit/Tip";
import { useSay } from "./kit/Toast";
import { Waiting } from "./kit/Waiting";
import { addressOf, places, viewAt, views, type Where } from "./views";

/** A workshop that was put away, back among the others. */
async function bringBack(workshopId: string, say: (text: string, bad?: boolean) => void) {
  try {
    await write((headers) =>
      api.POST("/api/workshops/{workshopId}/bring-back", { params: { path: { workshopId } }, headers }),
    );
    await readAgain(["plan"]);
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    say(error.message, true);
  }
}

/** The bar with set, places and workshop, the row with the views of a place, and the keys that work everywhere. */
export function Shell() {
  const { data: workshops, error } = useQuery(workshopsQuery);
  const params = useParams();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const [keys, setKeys] = useState(false);
  const [finding, setFinding] = useState(false);
  // Forms and their checks are not needed to see a page; where they do not come, the next press asks again.
  const [Air, setAir] = useState<typeof import("./BenchAir").BenchAir | null>(null);
  const openAir = () =>
    void import("./BenchAir").then(
      (m) => setAir(() => m.BenchAir),
      () => undefined,
    );
  const [Past, setPast] = useState<typeof import("./History").History | null>(null);
  const openPast = () =>
    void import("./History").then(
      (m) => setPast(() => m.History),
      () => undefined,
    );
  const say = useSay();
  const bench = currentBench();
  const [, turned] = useState(0);
  const main = useRef<HTMLElement>(null);

  const last = localStorage.getItem("lowfell.set");
  const setId = params["setId"] ?? (params["workshopId"] ? setOf(params["workshopId"]) : undefined);
  function setOf(workshopId: string) {
    const sets = workshops?.find((w) => w.id === workshopId)?.sets ?? [];
    return (sets.find((s) => s.id === last) ?? sets[0])?.id;
  }
  const { data: overview } = useQuery({ ...overviewQuery(setId ?? ""), enabled: !!setId });
  const workshop = workshops?.find((w) =>
    // A set that is put away is in no list, and still somebody's.
    setId
      ? w.sets.some((s) => s.id === setId) || w.id === overview?.workshopId
      : w.id === params["workshopId"],
  );
  const here = workshop?.sets.find((s) => s.id === setId);
  const benches = (workshops ?? []).filter((w) => !w.putAwayAt);
  const away = (workshops ?? []).filter((w) => w.putAwayAt);
  useChanges(workshop?.id);
  const unfit = useHasUnfit(workshop?.id);
  const view = viewAt(pathname);
  const workshopId = workshop?.id;
  const where = useMemo<Where>(() => ({ setId, workshopId }), [setId, workshopId]);

  useEffect(() => {
    if (params["setId"]) localStorage.setItem("lowfell.set", params["setId"]);
  }, [params]);

  const set = overview?.name;
  useEffect(() => {
    document.title = [view?.words, set, "Lowfell"].filter(Boolean).join(" · ");
  }, [view, set]);

  // Another view has the focus, so that its keys act and reading begins there.
  useEffect(() => {
    if (!main.current?.contains(document.activeElement)) main.current?.focus({ preventScroll: true });
  }, [view?.id]);
  useEffect(keepFocusHome, []);

  const dark = () => {
    switchBench();
    turned((n) => n + 1);
  };
  const known = views.flatMap((v) => {
    const address = addressOf(v, where);
    return address ? [{ ...v, address }] : [];
  });
  const commands: Command[] = [
    ...known.flatMap((v): Command[] =>
      v.key && v.id !== view?.id
        ? [{ id: `view ${v.id}`, key: v.key, says: v.says, run: () => leave(() => void navigate(v.address)) }]
        : [],
    ),
    { id: "finder", key: "f", says: "find anything, or do anything", run: () => setFinding(true) },
    { id: "bench", key: "l", says: "light or dark bench", run: dark },
    { id: "keys", key: "?", says: "these keys", run: () => setKeys(true) },
    ...(workshopId
      ? [
          { id: "undo", key: "Ctrl+Z", says: "undo", run: () => void turnAndSay(workshopId, "undo", say) },
          {
            id: "redo",
            key: "Ctrl+Shift+Z",
            says: "redo",
            run: () => void turnAndSay(workshopId, "redo", say),
          },
          {
            id: "redo too",
            key: "Ctrl+Y",
            says: "redo",
            run: () => void turnAndSay(workshopId, "redo", say),
          },
          { id: "past", key: "z", says: "what was done, and undo any of it", run: openPast },
        ]
      : []),
  ];
  useCommands("Everywhere", commands, { ready: !!workshops || !!error });
  const scopes = useAllCommands();

  const tab = (here: boolean) =>
    `rounded-[3px] px-3 py-1.5 whitespace-nowrap ${here ? "bg-ink text-paper" : "text-ink hover:bg-aside"}`;
  const inRow = known.filter((v) => !v.when || v.id === view?.id || (v.id === "unfit" && unfit));
  const row = inRow.filter((v) => v.home === view?.home && places.some((p) => p.id === v.home));

  return (
    <div className="flex h-full flex-col">
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-card focus:p-2">
        Skip to the view
      </a>
      <header className="no-print shrink-0 border-b border-line bg-card">
        <div className="flex min-h-[46px] flex-wrap items-center gap-x-4 px-4">
          <Link to="/" className="flex items-center gap-2 text-base font-bold">
            <svg width="22" height="22" viewBox="0 0 24 24" aria-hidden="true">
              <path d="M1 22V13l6-5 7 3 9-7v18z" fill="currentColor" />
              <path
                d="M1 16l6-3 8 2 8-5M1 19.4l6-2 8 1 8-3.4"
                stroke="var(--card)"
                fill="none"
                strokeWidth="1.5"
              />
            </svg>
            Lowfell
          </Link>
          <Menu
            label="Sets"
            says={
              overview
                ? `${overview.name} · 1:${overview.scale} · ${overview.pieces} pieces`
                : here
                  ? // As wide as it will be: what stands beside it must not move from under a finger.
                    `${here.name} · 1:${here.scale} · … pieces`
                  : (workshop?.name ?? "Choose a set")
            }
            groups={[
              ...benches.map((w) => ({
                name: w.name,
                entries: [
                  ...w.sets.map((s) => ({
                    text: `${s.name} · 1:${s.scale}`,
                    run: () => void navigate(`/plan/${s.id}`),
                  })),
                  { text: "New set here…", run: () => void navigate(`/start/${w.id}`) },
                ],
              })),
              {
                entries: known
                  .filter((v) => v.home === "set menu" && v.id !== "start")
                  .map((v) => ({ text: v.words, key: v.key, run: () => void navigate(v.address) })),
              },
              {
                entries: [
                  { text: "New workshop…", run: () => void navigate("/start/new") },
                  ...away.map((w) => ({
                    text: `Bring ${w.name} back`,
                    run: () => void bringBack(w.id, say),
                  })),
                ],
              },
            ]}
          />
          <nav
            aria-label="Places"
            className="order-last flex w-full gap-1 pb-1 max-sm:gap-0 max-sm:overflow-x-auto sm:order-none sm:w-auto sm:pb-0 max-sm:[&>a]:px-2"
          >
            {places.map((p) => {
              const first = known.find((v) => v.home === p.id);
              const here = view?.home === p.id;
              return (
                first && (
                  <Link
                    key={p.id}
                    to={first.address}
                    className={tab(here)}
                    aria-current={here ? "true" : undefined}
                    data-views={inRow
                      .filter((v) => v.home === p.id)
                      .map((v) => v.words)
                      .join("|")}
                  >
                    {p.words}
                  </Link>
                )
              );
            })}
          </nav>
          <div className="ml-auto flex items-center gap-3 text-xs text-soft">
            <button
              type="button"
              className="rounded-[3px] border border-line px-2 py-1 whitespace-nowrap hover:border-ink"
              aria-haspopup="dialog"
              onClick={() => setFinding(true)}
            >
              Find <kbd aria-hidden="true">f</kbd>
            </button>
            {workshop && (
              <button
                type="button"
                aria-haspopup="dialog"
                aria-label={`The air at the bench: ${workshop.temperatureC} °C, ${Math.round(workshop.relativeHumidity * 100)} %`}
                className="hidden min-h-6 whitespace-nowrap underline decoration-dotted hover:text-ink lg:inline"
                onClick={openAir}
              >
                {workshop.temperatureC} °C · {Math.round(workshop.relativeHumidity * 100)} %
              </button>
            )}
            <Menu
              label="Workshop"
              end
              says={workshop?.name ?? "Workshop"}
              groups={[
                {
                  entries: [
                    ...known
                      .filter((v) => v.home === "workshop menu")
                      .map((v) => ({ text: v.words, key: v.key, run: () => void navigate(v.address) })),
                    ...(workshop ? [{ text: "The air at the bench…", run: openAir }] : []),
                    ...(workshop ? [{ text: "What was done…", key: "z", run: openPast }] : []),
                    { text: bench === "light" ? "Dark bench" : "Light bench", key: "l", run: dark },
                    { text: "Keys…", key: "?", run: () => setKeys(true) },
                  ],
                },
              ]}
            />
          </div>
        </div>
        {row.length > 1 && (
          <nav
            aria-label="Views"
            className="flex gap-1 overflow-x-auto border-t border-line bg-aside px-4 py-0.5 text-sm"
          >
            {row.map((v) => (
              <Link
                key={v.id}
                to={v.address}
                aria-current={v.id === view?.id ? "page" : undefined}
                className={`rounded-[3px] px-2.5 py-1 whitespace-nowrap ${v.id === view?.id ? "bg-card font-semibold shadow-[inset_0_-2px_0_var(--ink)]" : "hover:bg-card"}`}
              >
                {v.words}
              </Link>
            ))}
          </nav>
        )}
      </header>
      <Waiting />
      <Troubles />
      <main id="main" ref={main} tabIndex={-1} data-view={view?.id} className="min-h-0 flex-1 outline-none">
        <Outlet />
      </main>
      <Tip />
      {Air && workshop && <Air workshop={workshop} onClose={() => setAir(null)} />}
      {Past && workshop && <Past workshopId={workshop.id} onClose={() => setPast(null)} />}
      {finding && <Finder setId={setId} workshopId={workshopId} onClose={() => setFinding(false)} />}
      <KeysDialog open={keys} onClose={() => setKeys(false)} scopes={scopes} />
    </div>
  );
}
