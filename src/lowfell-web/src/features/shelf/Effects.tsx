import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { plural } from "../../kit/severity";
import { differs } from "../../shared/words";

const MOST = 12;

/** What a change of a material does where it is used: the zones that differ most first, each before and after, and the remarks that move. */
export function Effects({ effect }: { effect: Schema["UseEffect"] }) {
  const { zones } = effect;
  if (effect.treatments === 0)
    return <p className="text-soft">No layer has it: nothing changes on the plan.</p>;
  return (
    <div>
      <p className="text-sm">
        {plural(effect.layers, "layer")} of {plural(effect.treatments, "treatment")}.{" "}
        {zones.length === 0
          ? "No colour and no remark changes."
          : `${plural(zones.length, "zone")} ${zones.length === 1 ? "changes" : "change"}${effect.unchanged > 0 ? `, ${effect.unchanged} ${effect.unchanged === 1 ? "does" : "do"} not` : ""}.`}
      </p>
      <ul className="mt-1 max-h-[40vh] overflow-y-auto" aria-label="Zones that change">
        {zones.slice(0, MOST).map((z) => (
          <li key={z.zoneId} className="flex items-center gap-2.5 border-t border-line py-1 text-xs">
            <svg width="44" height="20" aria-hidden="true" className="shrink-0">
              <rect width="22" height="20" fill={z.before} />
              <rect x="22" width="22" height="20" fill={z.after} />
            </svg>
            <span className="min-w-0 flex-1">
              <Link className="underline" to={`/plan/${z.setId}/${z.zoneId}`}>
                {z.zone}
              </Link>
              {z.gone.map((t) => (
                <span key={`gone ${t}`} className="block text-soft">
                  goes: {t}
                </span>
              ))}
              {z.come.map((t) => (
                <span key={`comes ${t}`} className="block text-amber">
                  ▲ comes: {t}
                </span>
              ))}
            </span>
            <b className="font-semibold whitespace-nowrap">{differs(z.difference)}</b>
          </li>
        ))}
      </ul>
      {zones.length > MOST && (
        <p className="text-xs text-soft">and {zones.length - MOST} more that differ less.</p>
      )}
    </div>
  );
}
