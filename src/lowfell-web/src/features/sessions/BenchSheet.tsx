import { Link } from "react-router";
import { Button } from "../../kit/Button";
import { minutes } from "../../shared/words";
import { clock, day, into, painterWords, pieceWords, type Plan, type Session } from "./evenings";
import { Ready } from "./Ready";

/** One session on paper: what to get ready, and what to do in turn, with room to tick it off. */
export function BenchSheet({ session, plan }: { session: Session; plan: Plan }) {
  const several = new Set(session.operations.map((o) => o.painter)).size > 1;
  return (
    <div className="h-full overflow-y-auto px-5 pt-3 pb-8 print:overflow-visible">
      <p className="no-print mb-2 flex gap-2">
        <Button tone="go" onClick={() => window.print()}>
          Print
        </Button>
        <Link className="inline-flex min-h-6 items-center text-sm underline" to="?">
          Back to the sessions
        </Link>
      </p>
      <h1 className="text-lg font-semibold">
        {day(session.start)}, {clock(session.start)}–{clock(session.end)}
      </h1>
      <p className="text-sm">
        {session.operations.length} to do, about {minutes(session.handsOnMinutes)} with hands on. Minutes and
        drying are estimates; the label on the pot wins.
      </p>
      <div className="mt-2 text-sm">
        <Ready ready={session.ready} level="h2" />
      </div>
      <ol className="mt-3 text-sm">
        {session.operations.map((o) => (
          <li
            key={o.id}
            className="grid grid-cols-[18px_48px_minmax(0,1fr)_auto] items-baseline gap-2 border-t border-line py-1.5"
          >
            <span aria-hidden="true" className="mt-1 size-3.5 border border-ink" />
            <span className="tabular-nums">{clock(o.start)}</span>
            <span>
              <b>{o.technique}</b>
              {o.paint && `, ${o.paint}`}: {o.zone} on {o.design},{" "}
              {o.pieces.length === o.ofPieces ? pieceWords(o) : o.pieces.join(", ")}
              {several && ` (${painterWords(plan, o.painter)})`}
              {o.closesAt && (
                <span className="block">
                  ▲ what follows by {clock(o.closesAt)}
                  {o.closesAt.slice(0, 10) !== o.start.slice(0, 10) && `, ${day(o.closesAt)}`}
                </span>
              )}
            </span>
            <span className="whitespace-nowrap">
              {minutes(into({ start: o.start }, o.end))}
              {o.wetMinutes >= 1 && `, wet ${minutes(o.wetMinutes)}`}
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}
