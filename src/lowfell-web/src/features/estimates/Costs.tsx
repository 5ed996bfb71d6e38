import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { Silhouette } from "../../drawing/Silhouette";
import { minutes } from "../../shared/words";

/** Designs and zones with their minutes, the dearest first. */
export function Costs(props: { reading: Schema["EstimatesReading"]; chosen: string | undefined }) {
  const { reading, chosen } = props;
  const designs = [...reading.designs].sort((a, b) => b.minutes - a.minutes);
  const most = Math.max(1, ...designs.flatMap((d) => d.zones.map((z) => z.minutes)));
  return (
    <ul>
      {designs.map((d) => (
        <li key={d.id} className="mb-3">
          <p className="flex items-center gap-2">
            <Silhouette shape={d.silhouette} colour={d.zones[0]?.layers.at(-1)?.seen.field} />
            <span className="min-w-0 flex-1 text-sm font-semibold">
              {d.name} <span className="font-normal text-soft">× {d.pieces}</span>
            </span>
            <span className="text-xs whitespace-nowrap tabular-nums">{minutes(Math.round(d.minutes))}</span>
          </p>
          <ul className="mt-0.5">
            {[...d.zones]
              .sort((a, b) => b.minutes - a.minutes)
              .map((z) => (
                <li key={z.id}>
                  <Link
                    to={`/estimates/${reading.setId}/${z.id}`}
                    aria-current={z.id === chosen ? "true" : undefined}
                    className={`grid min-h-7 grid-cols-[minmax(0,1fr)_64px_52px] items-center gap-2 rounded-[3px] px-2 text-xs hover:bg-card ${z.id === chosen ? "bg-card font-semibold shadow-[inset_3px_0_0_var(--tide)]" : ""}`}
                  >
                    <span className="truncate">{z.name}</span>
                    <span aria-hidden="true" className="h-1.5 bg-line">
                      <span
                        className="block h-full bg-ink"
                        style={{ width: `${(100 * z.minutes) / most}%` }}
                      />
                    </span>
                    <span className="text-right whitespace-nowrap tabular-nums">
                      {z.minutes > 0 ? minutes(Math.round(z.minutes)) : "done"}
                    </span>
                  </Link>
                </li>
              ))}
          </ul>
        </li>
      ))}
    </ul>
  );
}
