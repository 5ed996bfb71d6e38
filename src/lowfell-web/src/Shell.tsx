import { useQuery } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from "react-router";
import { overviewQuery, workshopsQuery } from "./api/queries";
import { currentBench, switchBench } from "./kit/bench";
import { KeysDialog } from "./kit/KeysDialog";
import { typing } from "./kit/keys";

const item =
  "block w-full cursor-default rounded-[2px] px-3 py-1.5 text-sm outline-none data-[highlighted]:bg-tide data-[highlighted]:text-on-tide";

/** The bar with set, views and bench, and the keys that work everywhere. */
export function Shell() {
  const { data: workshops } = useQuery(workshopsQuery);
  const params = useParams();
  const location = useLocation();
  const navigate = useNavigate();
  const [keys, setKeys] = useState(false);
  const [bench, setBench] = useState(currentBench());

  const last = localStorage.getItem("lowfell.set");
  const setId = params["setId"] ?? (params["workshopId"] ? setOf(params["workshopId"]) : undefined);
  function setOf(workshopId: string) {
    const sets = workshops?.find((w) => w.id === workshopId)?.sets ?? [];
    return (sets.find((s) => s.id === last) ?? sets[0])?.id;
  }
  const workshop = workshops?.find((w) =>
    setId ? w.sets.some((s) => s.id === setId) : w.id === params["workshopId"],
  );
  const { data: overview } = useQuery({ ...overviewQuery(setId ?? ""), enabled: !!setId });

  useEffect(() => {
    if (params["setId"]) localStorage.setItem("lowfell.set", params["setId"]);
  }, [params]);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (typing(e) || e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === "?") setKeys(true);
      else if (e.key === "l") setBench(switchBench());
      else if (e.key === "/" && workshop && !location.pathname.startsWith("/shelf")) {
        e.preventDefault();
        void navigate(`/shelf/${workshop.id}`);
      } else if (e.key === "p" && setId && !location.pathname.startsWith("/plan"))
        void navigate(`/plan/${setId}`);
      else if (e.key === "t" && setId && !location.pathname.startsWith("/table"))
        void navigate(`/table/${setId}`);
      else if (e.key === "w" && setId && !location.pathname.startsWith("/remarks"))
        void navigate(`/remarks/${setId}`);
      else if (e.key === "j" && setId && !location.pathname.startsWith("/pots"))
        void navigate(`/pots/${setId}`);
      else if (e.key === "k" && workshop && !location.pathname.startsWith("/stock"))
        void navigate(`/stock/${workshop.id}`);
      else if (e.key === "h" && workshop && !location.pathname.startsWith("/house"))
        void navigate(`/house/${workshop.id}`);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, workshop, location.pathname, setId]);

  const tab = ({ isActive }: { isActive: boolean }) =>
    `rounded-[3px] px-3 py-1.5 whitespace-nowrap ${isActive ? "bg-ink text-paper" : "text-ink hover:bg-aside"}`;

  return (
    <div className="flex h-full flex-col">
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-card focus:p-2">
        Skip to the view
      </a>
      <header className="flex h-[48px] shrink-0 items-center gap-4 border-b border-line bg-card px-4">
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
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className="max-w-[220px] min-w-0 truncate xl:max-w-[340px] rounded-[3px] border-l border-line px-3 py-1.5 text-left text-soft hover:bg-aside">
            {overview
              ? `${overview.name} · 1:${overview.scale} · ${overview.pieces} pieces`
              : (workshop?.name ?? "Choose a set")}
            <span aria-hidden="true"> ▾</span>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="start"
              className="z-30 min-w-60 rounded-[4px] border border-line bg-card p-1 text-ink shadow-lg"
            >
              {workshops?.map((w) => (
                <DropdownMenu.Group key={w.id}>
                  <DropdownMenu.Label className="px-3 pt-2 pb-1 text-xs text-soft">
                    {w.name}
                  </DropdownMenu.Label>
                  {w.sets.map((s) => (
                    <DropdownMenu.Item
                      key={s.id}
                      className={item}
                      onSelect={() => void navigate(`/plan/${s.id}`)}
                    >
                      {s.name} · 1:{s.scale}
                    </DropdownMenu.Item>
                  ))}
                  <DropdownMenu.Item className={item} onSelect={() => void navigate(`/start/${w.id}`)}>
                    New set here…
                  </DropdownMenu.Item>
                </DropdownMenu.Group>
              ))}
              <DropdownMenu.Separator className="my-1 h-px bg-hair" />
              <DropdownMenu.Item className={item} onSelect={() => void navigate("/start/new")}>
                New workshop…
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
        <nav aria-label="Views" className="flex gap-1">
          {setId && (
            <NavLink to={`/plan/${setId}`} className={tab}>
              Plan
            </NavLink>
          )}
          {setId && (
            <NavLink to={`/remarks/${setId}`} className={tab}>
              Remarks
            </NavLink>
          )}
          {setId && (
            <NavLink to={`/table/${setId}`} className={tab}>
              Table
            </NavLink>
          )}
          {setId && (
            <NavLink to={`/pots/${setId}`} className={tab}>
              Pots
            </NavLink>
          )}
          {workshop && (
            <NavLink to={`/house/${workshop.id}`} className={tab}>
              House rules
            </NavLink>
          )}
          {workshop && (
            <NavLink to={`/shelf/${workshop.id}`} className={tab}>
              Shelf
            </NavLink>
          )}
          {workshop && (
            <NavLink to={`/stock/${workshop.id}`} className={tab}>
              Stock
            </NavLink>
          )}
        </nav>
        <div className="ml-auto flex items-center gap-4 text-xs text-soft">
          {overview && (
            <>
              <span className="hidden whitespace-nowrap xl:inline">
                Bench {overview.temperatureC} °C · {Math.round(overview.relativeHumidity * 100)} %
              </span>
              <span className="hidden whitespace-nowrap xl:inline">Table {overview.tableMetres} m</span>
            </>
          )}
          <button
            type="button"
            className="rounded-[3px] border border-line px-2 py-1 whitespace-nowrap hover:border-ink"
            onClick={() => setBench(switchBench())}
          >
            {bench === "light" ? "Dark bench" : "Light bench"}
          </button>
          <button
            type="button"
            className="rounded-[3px] border border-line px-2 py-1 whitespace-nowrap hover:border-ink"
            onClick={() => setKeys(true)}
          >
            Keys <kbd aria-hidden="true">?</kbd>
          </button>
        </div>
      </header>
      <main id="main" className="min-h-0 flex-1">
        <Outlet />
      </main>
      <KeysDialog open={keys} onClose={() => setKeys(false)} />
    </div>
  );
}
