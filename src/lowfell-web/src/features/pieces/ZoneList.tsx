import { Link } from "react-router";
import type { Schema } from "../../api/client";

/** Designs with their zones, to choose what is laid side by side. */
export function ZoneList(props: {
  setId: string;
  designs: Schema["PlanOverview"]["designs"];
  zoneId: string;
}) {
  return (
    <nav
      aria-label="Designs and zones"
      className="border-line pt-3 pb-4 text-sm max-md:max-h-40 max-md:overflow-y-auto max-md:border-b md:pane md:border-r"
    >
      {props.designs.map((d) => (
        <div key={d.id} className="mb-2">
          <h2 className="px-4 text-xs text-soft">{d.name}</h2>
          <ul>
            {d.zones.map((z) => (
              <li key={z.id}>
                <Link
                  to={`/pieces/${props.setId}/${z.id}`}
                  replace
                  aria-current={z.id === props.zoneId ? "page" : undefined}
                  className={`block min-h-6 px-4 py-0.5 ${z.id === props.zoneId ? "bg-card font-semibold shadow-[inset_3px_0_0_var(--tide)]" : "hover:bg-aside"}`}
                >
                  {z.name}
                </Link>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </nav>
  );
}
