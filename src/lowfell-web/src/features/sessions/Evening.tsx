import { Link } from "react-router";
import { minutes } from "../../shared/words";
import { clock, day, drying, into, pieceWords, type Operation, type Session } from "./evenings";

const LANES = 3;

/** One session: hands above, drying below as wedges that thin out, windows as doors that close; and all of it as a list. */
export function Evening({ session, widest }: { session: Session; widest: number }) {
  const x = (m: number) => `${(100 * m) / widest}%`;
  const whole = into(session, session.end);
  const wet = drying(session, LANES);
  return (
    <section aria-label={`${day(session.start)}, ${clock(session.start)}`} className="mt-3">
      <div className="grid gap-x-3 md:grid-cols-[104px_minmax(0,1fr)]">
        <h2 className="text-sm font-semibold">
          {day(session.start)}
          <span className="block text-xs font-normal text-soft">
            {clock(session.start)}–{clock(session.end)}
          </span>
        </h2>
        <div aria-hidden="true" className="relative max-md:hidden">
          <div className="relative h-9 border-t border-ink" style={{ width: x(whole) }} />
          {session.operations.map((o) => (
            <Block key={o.id} o={o} session={session} x={x} />
          ))}
          {wet.map((o) => (
            <Wedge key={o.id} o={o} session={session} widest={widest} />
          ))}
        </div>
      </div>
      <details className="mt-1 text-xs md:ml-[116px]">
        <summary className="inline-flex min-h-6 cursor-pointer items-center text-soft underline">
          {session.operations.length} to do, {minutes(session.handsOnMinutes)}
        </summary>
        <ol className="mt-1">
          {session.operations.map((o) => (
            <li
              key={o.id}
              className="grid grid-cols-[44px_14px_minmax(0,1fr)_auto] items-baseline gap-2 border-t border-hair py-1"
            >
              <span className="tabular-nums">{clock(o.start)}</span>
              <span
                aria-hidden="true"
                className="size-3 border border-line"
                style={{ background: o.colour }}
              />
              <span>
                <Link className="underline" to={`/plan/${o.setId}/${o.zoneId}?layer=${o.layerId}`}>
                  {o.technique}
                </Link>
                {o.paint && `, ${o.paint}`}{" "}
                <span className="text-soft">
                  {o.zone} on {o.design}, {pieceWords(o)}
                </span>
                {o.closesAt && (
                  <span className="block text-amber">
                    ▲ what follows has to begin by {clock(o.closesAt)}
                    {o.closesAt.slice(0, 10) !== o.start.slice(0, 10) && ` on ${day(o.closesAt)}`}
                  </span>
                )}
              </span>
              <span className="text-right whitespace-nowrap text-soft">
                {minutes(into({ start: o.start }, o.end))}
                {o.wetMinutes >= 20 && `, wet ${minutes(o.wetMinutes)}`}
              </span>
            </li>
          ))}
        </ol>
      </details>
    </section>
  );
}

type Placed = { o: Operation; session: Session };

function Block({ o, session, x }: Placed & { x: (m: number) => string }) {
  const [from, to] = [into(session, o.start), into(session, o.end)];
  return (
    <div
      title={`${o.technique}, ${o.zone} on ${o.design}, ${pieceWords(o)}: ${clock(o.start)}–${clock(o.end)}`}
      className={`absolute top-px flex h-[34px] flex-col overflow-hidden border border-line bg-card text-[11px] leading-[15px] ${o.binds !== null ? "border-b-[3px] border-b-ink" : ""}`}
      style={{ left: x(from), width: x(to - from) }}
    >
      <span className="h-[4px] shrink-0" style={{ background: o.colour }} />
      <span className="truncate px-1">{o.technique}</span>
      <span className="truncate px-1 text-soft">
        {o.zone} · {pieceWords(o)}
      </span>
    </div>
  );
}

/** How wet it is thins out to nothing; what goes on after the session is cut off at its end. */
function Wedge({ o, session, widest }: Placed & { widest: number }) {
  const from = into(session, o.end);
  const shown = Math.min(o.wetMinutes, Math.max(0, widest - from));
  const left = 1 - shown / o.wetMinutes;
  const closes = o.closesAt ? into(session, o.closesAt) : null;
  return (
    <div className="relative h-[18px]">
      <svg
        className="absolute h-[14px]"
        style={{ left: `${(100 * from) / widest}%`, width: `${(100 * shown) / widest}%`, top: 2 }}
        viewBox="0 0 100 14"
        preserveAspectRatio="none"
      >
        <path d={`M0 0H100V${14 * left}L0 14Z`} fill="var(--tide)" opacity="0.35" />
      </svg>
      {closes !== null && closes > from && closes <= widest && (
        <span
          className="absolute top-[1px] h-4 border-r-2 border-signal"
          style={{ left: `${(100 * closes) / widest}%` }}
        />
      )}
      <span
        className="absolute top-[1px] truncate text-[11px] leading-4 whitespace-nowrap"
        style={{ left: `calc(${(100 * Math.min(from, widest * 0.82)) / widest}% + 4px)` }}
      >
        {o.technique} dries, {minutes(o.wetMinutes)}
        {closes !== null && closes <= widest && `; window closes ${clock(o.closesAt!)}`}
      </span>
    </div>
  );
}
