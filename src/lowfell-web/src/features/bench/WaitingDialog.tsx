import { useEffect } from "react";
import { Link } from "react-router";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { role } from "../../kit/role";
import { plural } from "../../kit/severity";
import { saveAll, savePhoto } from "../../shared/bench/file";
import type { BenchQueue, Queue } from "../../shared/bench/queue";
import { UnfitList } from "../../shared/unfit/UnfitList";
import { useUnfit } from "../../shared/unfit/useUnfit";
import { clockAt, dayAt } from "./says";

/** What this device has that has not got to its place: on its way, held up, or not fitting. */
export function WaitingDialog(props: {
  workshopId: string;
  state: Queue;
  queue: BenchQueue;
  onClose: () => void;
}) {
  const { workshopId, state, queue } = props;
  const unfit = useUnfit(workshopId, role !== "look");
  const entries = unfit.data?.entries;
  const settled = state.aside.filter((a) => a.atServer && entries?.find((e) => e.id === a.id)?.settled);
  // What was decided about is nothing that this device has to keep.
  useEffect(() => {
    for (const { id } of settled) void queue.letGo("aside", id);
  }, [queue, settled]);
  const here = state.aside.filter((a) => !entries?.some((e) => e.id === a.id));
  const waits = state.events.length;
  return (
    <Dialog open wide onClose={props.onClose} title="What has not got to its place">
      <div className="grid gap-4 text-base">
        {state.why && (
          <p role="status" className="text-amber">
            ▲ {state.why}
          </p>
        )}
        <p>
          {waits === 0
            ? "Nothing that happened is on its way."
            : `${plural(waits, "event")} ${waits === 1 ? "is" : "are"} kept on this device and will be sent by ${waits === 1 ? "itself" : "themselves"}.`}
          {state.unkept > 0 &&
            ` This browser has no room to keep ${plural(state.unkept, "event")} over a reload: save a file before you close the page.`}
        </p>
        {state.photos.length > 0 && (
          <section aria-label="Photographs">
            <ul>
              {state.photos.map((p) => (
                <li
                  key={p.id}
                  data-photo={p.id}
                  className="flex flex-wrap items-center gap-2 border-b border-line/60 py-1.5"
                >
                  <span className="min-w-0 flex-1 break-words">
                    Photograph of {dayAt(p.takenAt)}, {clockAt(p.takenAt)}
                    {p.held && <span className="block text-sm text-amber">▲ {p.held}</span>}
                  </span>
                  <Button
                    className="min-h-14 px-3 text-base"
                    onClick={() => void savePhoto(workshopId, p.id)}
                  >
                    Save as file
                  </Button>
                  {p.held && (
                    <Button
                      className="min-h-14 px-3 text-base"
                      onClick={() => void queue.letGo("photos", p.id)}
                    >
                      Let go
                    </Button>
                  )}
                </li>
              ))}
            </ul>
            {state.photos.some((p) => p.held) && (
              <Button
                tone="go"
                className="mt-2 min-h-14 px-4 text-base"
                onClick={() => void queue.photosAgain()}
              >
                Send again
              </Button>
            )}
          </section>
        )}
        {here.length > 0 && (
          <section aria-label="Set aside on this device">
            <ul>
              {here.map((a) => (
                <li key={a.id} data-aside={a.id} className="border-b border-line/60 py-1.5">
                  <b>{a.event.kind}</b> of {dayAt(a.event.toldAt)}, {clockAt(a.event.toldAt)}
                  {a.event.note ? `: “${a.event.note}”` : ""}
                  <span className="block text-sm text-amber">▲ {a.why}</span>
                  <Button
                    className="mt-1 min-h-14 px-3 text-base"
                    onClick={() => void queue.letGo("aside", a.id)}
                  >
                    Let go on this device
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        )}
        {entries && entries.length > 0 && (
          <section aria-label="What did not fit">
            <h3 className="font-semibold">What did not fit</h3>
            <UnfitList workshopId={workshopId} entries={entries} />
            {role === "" && (
              <Link to={`/unfit/${workshopId}`} className="mt-2 inline-block min-h-6 underline">
                Put it right in What did not fit
              </Link>
            )}
          </section>
        )}
        <div className="flex flex-wrap gap-2">
          <Button className="min-h-14 px-4 text-base" onClick={() => void saveAll(workshopId)}>
            Save all of it as a file
          </Button>
          <Button className="min-h-14 px-4 text-base" onClick={props.onClose}>
            Close
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
