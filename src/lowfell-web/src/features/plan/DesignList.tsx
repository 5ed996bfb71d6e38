import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { Silhouette } from "../../drawing/Silhouette";
import { Button } from "../../kit/Button";
import { Later } from "../../kit/Later";
import { plural, severities } from "../../kit/severity";

const addDesign = () => import("../../shared/designs/AddDesign").then((m) => m.default);

type Overview = Schema["PlanOverview"];

const kinds = ["stop", "caution", "hint"] as const;

/** Counts by shape and word, never by colour alone; the brief form keeps its words for screen readers and the pointer. */
function Counts({ of, brief }: { of: Record<"stop" | "caution" | "hint", number>; brief?: boolean }) {
  const some = kinds.filter((kind) => of[kind] > 0);
  const shown = brief ? some : some.slice(0, 2);
  return (
    <span className="inline-flex flex-wrap gap-x-2 text-xs">
      {shown.map((kind) => (
        <span
          key={kind}
          data-tip={plural(of[kind], kind)}
          className={`whitespace-nowrap ${severities[kind].tint} ${kind === "stop" ? "font-medium" : ""}`}
        >
          <span aria-hidden="true">{severities[kind].sign} </span>
          {brief ? (
            <>
              {of[kind]}
              <span className="sr-only"> {kind}</span>
            </>
          ) : (
            plural(of[kind], kind)
          )}
        </span>
      ))}
    </span>
  );
}

export function DesignList({ overview, zoneId }: { overview: Overview; zoneId?: string }) {
  const [adding, setAdding] = useState(false);
  return (
    <nav
      aria-label="Designs and their zones"
      className="min-h-0 overflow-y-auto border-line pt-2 pb-4 max-md:max-h-[40vh] max-md:border-b md:border-r"
    >
      <h2 className="px-4 pb-1 text-xs text-soft">Designs and their zones</h2>
      <ul>
        {overview.designs.map((d) => {
          const open = d.zones.some((z) => z.id === zoneId);
          const sum = (of: "stops" | "cautions" | "hints") => d.zones.reduce((n, z) => n + z[of], 0);
          return (
            <li key={d.id} className={open ? "bg-card shadow-[inset_3px_0_0_var(--tide)]" : ""}>
              <Link
                to={`/plan/${overview.setId}/${d.zones[0]?.id ?? ""}`}
                className="grid grid-cols-[56px_1fr] items-center gap-2.5 px-4 py-[7px] hover:bg-aside"
              >
                <Silhouette shape={d.silhouette} colour={d.zones[0]?.colour} />
                <span className="min-w-0 leading-tight">
                  <span className="font-semibold">{d.name}</span>{" "}
                  <span className="text-xs whitespace-nowrap text-soft">× {d.pieces}</span>
                  {!open && (
                    <span className="block">
                      <Counts of={{ stop: sum("stops"), caution: sum("cautions"), hint: sum("hints") }} />
                    </span>
                  )}
                </span>
              </Link>
              {open && (
                <ul className="pb-2">
                  {d.zones.map((z) => (
                    <li key={z.id}>
                      <Link
                        to={`/plan/${overview.setId}/${z.id}`}
                        aria-current={z.id === zoneId ? "page" : undefined}
                        className={`flex min-h-[26px] items-center gap-2 pr-3 pl-[38px] text-xs hover:bg-aside ${z.id === zoneId ? "font-bold" : ""}`}
                      >
                        <svg width="12" height="12" aria-hidden="true" className="shrink-0 self-center">
                          <rect width="12" height="12" fill={z.colour ?? "none"} stroke="var(--line)" />
                        </svg>
                        <span className="min-w-0 flex-1 truncate">{z.name}</span>
                        <Counts brief of={{ stop: z.stops, caution: z.cautions, hint: z.hints }} />
                      </Link>
                    </li>
                  ))}
                </ul>
              )}
            </li>
          );
        })}
      </ul>
      <div className="px-4 pt-3">
        <Button aria-haspopup="dialog" onClick={() => setAdding(true)}>
          Add a design
        </Button>
      </div>
      {adding && (
        <Later
          load={addDesign}
          wanted
          with={{ setId: overview.setId, workshopId: overview.workshopId, onClose: () => setAdding(false) }}
        />
      )}
    </nav>
  );
}
