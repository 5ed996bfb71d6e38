import { minutes } from "../../shared/words";
import { type Row } from "./fold";
import { labelsOf } from "../../shared/labels";
import { clockAt } from "./says";

/** The pieces on the line: what is wet, how long still, and which can be handled. */
export function Line({ rows, now }: { rows: readonly Row[]; now: number }) {
  return (
    <section
      aria-label="On the line"
      tabIndex={0}
      className="min-h-0 md:col-start-2 md:row-start-3 md:overflow-y-auto"
    >
      <h2 className="text-sm text-soft">On the line</h2>
      {rows.length === 0 && <p className="mt-1 text-base">Nothing is wet.</p>}
      <ul>
        {rows.map((r) => {
          const [done, touch, ready] = [r.doneAt, r.touchAt, r.readyAt].map((t) => Date.parse(t)) as [
            number,
            number,
            number,
          ];
          const share = Math.min(1, Math.max(0, (now - done) / Math.max(1, Math.max(touch, ready) - done)));
          return (
            <li
              key={`${r.eventId} ${r.pieceId}`}
              data-wet={r.pieces.join(" ")}
              className="border-b border-line py-1.5"
            >
              <p className="flex flex-wrap items-baseline gap-x-3">
                <b className="text-base">{labelsOf(r.pieces)}</b>
                <span className="text-sm">
                  {r.technique}, {r.zone}
                </span>
              </p>
              <p className="text-sm text-soft">
                {now < touch
                  ? `wet, ${minutes((touch - now) / 60_000)} until it can be touched`
                  : "can be handled"}
                {now < ready
                  ? `; ready for what follows at ${clockAt(ready)}${ready - now > 20 * 3_600_000 ? ", another day" : ""}`
                  : "; ready for what follows"}
              </p>
              <div aria-hidden="true" className="mt-1 h-1 bg-hair">
                <div className="h-1 bg-tide" style={{ width: `${share * 100}%` }} />
              </div>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
