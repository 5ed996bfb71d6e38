import { Button } from "../../kit/Button";
import { plural } from "../../kit/severity";
import { minutes, ml } from "../../shared/words";
import type { Tray } from "./types";

/** What the tray comes to: areas of textures beside those of the zones, and how many of what. */
export function Totals({ tray, busy, onPlan }: { tray: Tray; busy: boolean; onPlan: () => void }) {
  const n = tray.bases.length;
  const off =
    tray.textures.some((t) => t.zoneCm2 != null && Math.abs(t.zoneCm2 - t.drawnCm2) > 0.01 * t.drawnCm2) ||
    tray.counts.some((c) => c.planned != null && c.planned !== planned(tray, c.kind));
  return (
    <section aria-label="What it comes to" className="mt-4">
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] gap-3 text-sm">
        {tray.textures.map((t, i) => (
          <li key={i} className="border-l-4 border-line bg-card px-3 py-1.5">
            <b>{t.zone}</b>
            <span className="block text-xs">
              {t.drawnCm2} cm² a base, {Math.round(t.drawnCm2 * n)} cm² in all
            </span>
            {t.zoneCm2 != null && (
              <span className="block text-xs text-soft">
                {t.zoneCm2} cm² in the plan · about {ml(t.ml)}, {minutes(t.minutes)}
              </span>
            )}
          </li>
        ))}
        {tray.counts.map((c) => (
          <li key={c.kind} className="border-l-4 border-line bg-card px-3 py-1.5">
            <b>{c.kind === "cork" ? `${c.all} of cork` : plural(c.all, c.kind)}</b>
            <span className="block text-xs">
              {[
                [c.large, "large"],
                [c.middling, "middling"],
                [c.small, "small"],
              ]
                .filter(([k]) => k)
                .map(([k, w]) => `${k} ${w}`)
                .join(", ")}
            </span>
            <span className="block text-xs text-soft">
              {c.layer
                ? `set by ${c.layer}${c.planned != null ? `, ${c.planned} in the plan` : ""}`
                : c.kind === "plank"
                  ? "drawn only"
                  : `no layer sets ${c.kind === "cork" ? "cork" : `${c.kind}s`} yet: add one to have them bought`}
            </span>
          </li>
        ))}
      </ul>
      {tray.version != null && (
        <p className="no-print mt-2 flex items-center gap-3 text-xs text-soft">
          <Button disabled={busy || !off} onClick={onPlan}>
            Areas and counts into the plan
          </Button>
          {off
            ? "The plan reckons with other areas or counts than are drawn."
            : "The plan reckons with what is drawn."}
        </p>
      )}
    </section>
  );
}

/** What the layer that sets a kind would be planned to set: one layer may set tufts and reeds. */
function planned(tray: Tray, kind: Tray["counts"][number]["kind"]) {
  const layer = tray.counts.find((c) => c.kind === kind)!.layer;
  return tray.counts.filter((c) => c.layer === layer).reduce((sum, c) => sum + c.all, 0);
}
