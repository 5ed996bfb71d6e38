import { useState } from "react";
import { Link } from "react-router";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Select } from "../../kit/Select";
import { minutes } from "../../shared/words";
import { clock, day, into, pieceWords, type Operation, type Plan } from "./evenings";
import type { Timetable } from "./useTimetable";

/** One operation: what it is, and when it is to be done. */
export function OperationDialog(props: {
  o: Operation;
  plan: Plan;
  timetable: Timetable;
  onClose: () => void;
}) {
  const { o, plan, timetable, onClose } = props;
  const here = plan.sessions.find((s) => s.operations.some((x) => x.id === o.id));
  const [to, setTo] = useState(here?.start ?? "");
  const chosen = plan.sessions.find((s) => s.start === to) ?? null;
  const done = (answer: unknown) => answer && onClose();
  return (
    <Dialog
      open
      onClose={onClose}
      title={`${o.technique[0]!.toUpperCase()}${o.technique.slice(1)}, ${o.zone}`}
    >
      <dl className="grid grid-cols-[90px_1fr] gap-x-3 gap-y-1 text-sm">
        <dt className="text-soft">On</dt>
        <dd>
          {o.design}, {pieceWords(o)}
        </dd>
        {o.paint && (
          <>
            <dt className="text-soft">With</dt>
            <dd>{o.paint}</dd>
          </>
        )}
        <dt className="text-soft">When</dt>
        <dd>
          {day(o.start)}, {clock(o.start)}–{clock(o.end)}, about {minutes(into({ start: o.start }, o.end))}
          {o.wetMinutes >= 1 && `; then wet for ${minutes(o.wetMinutes)}`}
        </dd>
        {o.closesAt && (
          <>
            <dt className="text-soft">Window</dt>
            <dd className="text-amber">
              ▲ what follows has to begin by {day(o.closesAt)}, {clock(o.closesAt)}
            </dd>
          </>
        )}
      </dl>
      <div className="mt-4 flex flex-wrap items-end gap-2">
        <div className="min-w-56 flex-1">
          <Select
            label="Do it in the session of"
            value={to}
            options={plan.sessions.map((s) => ({
              value: s.start,
              text: `${day(s.start)}, ${clock(s.start)}${s === here ? " (as planned)" : ""}`,
            }))}
            onChange={setTo}
          />
        </div>
        <Button
          tone="go"
          disabled={timetable.busy || !chosen || (chosen === here && o.pinned)}
          onClick={() => void timetable.move(o, chosen).then(done)}
        >
          {chosen === here ? "Pin it here" : "Move it there"}
        </Button>
        {o.pinned && (
          <Button disabled={timetable.busy} onClick={() => void timetable.move(o, null).then(done)}>
            Let it go where it likes
          </Button>
        )}
      </div>
      <p className="mt-3 text-xs">
        <Link className="underline" to={`/plan/${o.setId}/${o.zoneId}?layer=${o.layerId}`}>
          Open the layer
        </Link>
      </p>
    </Dialog>
  );
}
