import { minutes } from "../../shared/words";
import { LOUD_MIN, type Door } from "./fold";
import { labelsOf } from "../../shared/labels";
import { clockAt } from "./says";

/** Windows that are about to close: first of all, and loud. */
export function Doors({ doors }: { doors: readonly Door[] }) {
  if (doors.length === 0) return null;
  return (
    <ul aria-label="Windows about to close" className="grid gap-2 md:col-start-2 md:row-start-2">
      {doors.map((d) => {
        const late = d.closesIn <= 0;
        const open = d.opensIn <= 0;
        const loud = late || (open && d.closesIn <= LOUD_MIN);
        return (
          <li
            key={`${d.row.eventId} ${d.row.pieceId}`}
            data-door={d.closes}
            className={`rounded-[4px] px-4 py-3 ${loud ? "bg-signal text-paper" : "border border-line bg-card"}`}
          >
            <p className="text-sm">
              {late ? "too late to " : ""}
              {d.closes}, {d.row.zone}
            </p>
            <p className="text-lg leading-tight font-semibold md:text-xl">
              {labelsOf(d.row.pieces)}{" "}
              {late
                ? `closed ${minutes(-d.closesIn)} ago`
                : open
                  ? `within ${minutes(d.closesIn)}`
                  : `from ${clockAt(d.row.opensAt ?? d.row.doneAt)} to ${clockAt(d.row.closesAt!)}`}
            </p>
          </li>
        );
      })}
    </ul>
  );
}
