import type { Queue } from "../../shared/bench/queue";
import { airWords, type Instruments } from "../../shared/instruments";
import { plural } from "../../kit/severity";
import { clockAt, dayAt } from "./says";
import type { Reading } from "./types";

/** The time, the session, and what has not got to the server yet. */
export function Waits(props: {
  reading: Reading;
  now: number;
  away: boolean;
  queue: Queue;
  air: Instruments | undefined;
  sentAway: string;
  onShow: () => void;
}) {
  const { reading, now, away, queue, air, onShow } = props;
  const sentAway = props.sentAway || (queue.sentAway ? queue.why : "");
  const held = queue.photos.filter((p) => p.held).length;
  const waits = queue.events.length + queue.photos.length - held;
  const unfit = queue.aside.length;
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
      <span role="status" className="ml-auto text-amber" data-waiting={waits}>
        {waits > 0 && `▲ ${waits} waiting to be sent. `}
        {(away || queue.why) &&
          (sentAway || queue.why || "Nobody answers;") + (sentAway ? "" : " Everything is kept here.")}
      </span>
      {sentAway && (
        <p role="alert" className="basis-full text-amber">
          ▲ What this device has not sent is kept here, and can be saved as a file.
        </p>
      )}
      {queue.unkept > 0 && (
        <p role="alert" className="basis-full text-signal">
          ▲ This browser has no room: {plural(queue.unkept, "event")} would be gone with this page. Leave it
          open until it is sent, or save it as a file.
        </p>
      )}
      {(unfit > 0 || held > 0 || ((away || sentAway) && waits > 0) || queue.unkept > 0) && (
        <button
          type="button"
          aria-haspopup="dialog"
          data-unfits={unfit + held}
          className="min-h-14 basis-full text-left font-semibold text-signal underline"
          onClick={onShow}
        >
          {unfit + held > 0
            ? `▲ ${[unfit > 0 && `${unfit} did not fit`, held > 0 && `${plural(held, "photograph")} held up`].filter(Boolean).join(", ")}: look at ${unfit + held === 1 ? "it" : "them"}`
            : "Look at what waits"}
        </button>
      )}
    </header>
  );
}
