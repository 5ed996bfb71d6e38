import type { Queue } from "../../shared/bench/queue";
import { airWords, type Instruments } from "../../shared/instruments";
import { clockAt, dayAt } from "./says";
import type { Reading } from "./types";

/** The time, the session, and what has not got to the server yet. */
export function Waits(props: {
  reading: Reading;
  now: number;
  away: boolean;
  queue: Queue;
  air: Instruments | undefined;
}) {
  const { reading, now, away, queue, air } = props;
  const { begins, ends } = reading;
  const on = begins && ends && Date.parse(begins) <= now && now < Date.parse(ends);
  return (
    <header className="flex flex-wrap items-baseline gap-x-5 gap-y-1 text-sm md:col-span-2">
      <b className="text-base">
        {dayAt(now)}, {clockAt(now)}
      </b>
      <span className="text-soft">
        {on
          ? `session ends ${clockAt(ends)}`
          : begins
            ? `work of the session of ${dayAt(begins)}, ${clockAt(begins)}`
            : "no session is planned"}
      </span>
      {air?.air.by && (
        <span className="text-soft" data-measured>
          {airWords(air.air)}, measured by {air.air.by}
        </span>
      )}
      {air?.troubles.map((t) => (
        <span key={`${t.deviceId} ${t.says}`} className="text-amber">
          ▲ {t.says}
        </span>
      ))}
      {reading.news && <span className="text-amber">▲ {reading.news}</span>}
      <span role="status" className="ml-auto text-amber" data-waiting={queue.events.length + queue.photos}>
        {queue.events.length + queue.photos > 0 &&
          `▲ ${queue.events.length + queue.photos} waiting to be sent. `}
        {(away || queue.why) && "Nobody answers; everything is kept here."}
      </span>
      {queue.refused.map((r) => (
        <p key={r.number} role="alert" className="basis-full text-signal">
          ▲ Not accepted: {r.why}
        </p>
      ))}
    </header>
  );
}
