import { useState } from "react";
import { Link } from "react-router";
import { minutes } from "../../shared/words";
import { Block } from "./Block";
import {
  clock,
  day,
  drying,
  hands,
  into,
  keyOf,
  painterWords,
  pieceWords,
  type Operation,
  type Plan,
  type Session,
} from "./evenings";
import { Ready } from "./Ready";
import type { Timetable } from "./useTimetable";

const DRYING_SHOWN = 3,
  LANE_PX = 37;

/** One session: hands above, drying below as wedges that thin out, windows as doors that close; and all of it as a list. */
export function Evening(props: {
  session: Session;
  plan: Plan;
  timetable: Timetable;
  widest: number;
  open: (o: Operation) => void;
  follow: (o: Operation) => void;
}) {
  const { session, plan, widest } = props;
  const x = (m: number) => `${(100 * m) / widest}%`;
  const whole = into(session, session.end);
  const wet = drying(session, DRYING_SHOWN);
  const painters = hands(session);
  // The list of an evening is drawn when somebody looks into it: there are as many as there are evenings.
  const [looked, setLooked] = useState(false);
  return (
    <section
      aria-label={`${day(session.start)}, ${clock(session.start)}`}
      data-session={session.start}
      className="mt-3"
    >
      <div className="grid gap-x-3 md:grid-cols-[104px_minmax(0,1fr)]">
        <h2 className="text-sm font-semibold">
          {day(session.start)}
          <span className="block text-xs font-normal text-soft">
            {clock(session.start)}–{clock(session.end)}
          </span>
        </h2>
        <div className="relative max-md:hidden">
          <div
            role="group"
            aria-label={`Hands on ${day(session.start)}`}
            className="relative border-t border-ink"
            style={{ width: x(whole), height: painters.length * LANE_PX }}
          />
          <div className="absolute inset-x-0 top-px">
            {painters.map((p, lane) =>
              session.operations
                .filter((o) => o.painter === p)
                .map((o, i) => (
                  <Block
                    key={keyOf(o)}
                    o={o}
                    session={session}
                    plan={plan}
                    timetable={props.timetable}
                    first={lane === 0 && i === 0}
                    x={x}
                    top={lane * LANE_PX}
                    open={props.open}
                    follow={props.follow}
                  />
                )),
            )}
          </div>
          {painters.length > 1 && (
            <div aria-hidden="true" className="absolute top-0 -left-6 w-5 text-right text-[11px] text-soft">
              {painters.map((p) => (
                <p key={p} className="truncate leading-[37px]" style={{ height: LANE_PX }}>
                  {painterWords(plan, p)}
                </p>
              ))}
            </div>
          )}
          <div aria-hidden="true">
            {wet.map((o) => (
              <Wedge key={o.id} o={o} session={session} widest={widest} />
            ))}
          </div>
        </div>
      </div>
      <details
        className="mt-1 text-xs open:relative open:z-20 open:bg-paper md:ml-[116px]"
        onToggle={(e) => e.currentTarget.open && setLooked(true)}
      >
        <summary className="inline-flex min-h-6 cursor-pointer items-center text-soft underline">
          {session.operations.length} to do, {minutes(session.handsOnMinutes)}; what to get ready
        </summary>
        {looked && (
          <>
            <Ready ready={session.ready} />
            <ol className="mt-1">
              {session.operations.map((o) => (
                <Line key={o.id} o={o} plan={plan} painters={painters.length} open={props.open} />
              ))}
            </ol>
            <Link
              className="mt-1 inline-flex min-h-6 items-center underline"
              to={`?sheet=${encodeURIComponent(session.start)}`}
            >
              Sheet to print
            </Link>
          </>
        )}
      </details>
    </section>
  );
}

function Line({
  o,
  plan,
  painters,
  open,
}: {
  o: Operation;
  plan: Plan;
  painters: number;
  open: (o: Operation) => void;
}) {
  return (
    <li className="grid grid-cols-[44px_14px_minmax(0,1fr)_auto] items-baseline gap-2 border-t border-hair py-1">
      <span className="tabular-nums">{clock(o.start)}</span>
      <span aria-hidden="true" className="size-3 border border-line" style={{ background: o.colour }} />
      <span>
        <button type="button" className="min-h-6 text-left underline" onClick={() => open(o)}>
          {o.technique}
        </button>
        {o.paint && `, ${o.paint}`}{" "}
        <span className="text-soft">
          {o.zone} on {o.design}, {pieceWords(o)}
          {painters > 1 && `, ${painterWords(plan, o.painter)}`}
          {o.pinned && ", pinned"}
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
  );
}

/** How wet it is thins out to nothing; what goes on after the session is cut off at its end. */
function Wedge({ o, session, widest }: { o: Operation; session: Session; widest: number }) {
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
