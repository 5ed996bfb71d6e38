import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { Alert } from "../../kit/Alert";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { NumberField } from "../../kit/NumberField";
import type { Timetable } from "./useTimetable";

const USUAL = 30,
  MOST = 600,
  SHOWN = 12;

/** The next session begins late: what moves, before it is taken over. */
export function LateDialog(props: { workshopId: string; timetable: Timetable; onClose: () => void }) {
  const { workshopId, timetable, onClose } = props;
  const [minutes, setMinutes] = useState(USUAL);
  const late = useQuery({
    queryKey: ["sessions", workshopId, "late", minutes],
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/sessions/{workshopId}/late", {
          params: { path: { workshopId }, query: { minutes } },
          signal,
        }),
      ),
  });
  const error = hindered(late);
  return (
    <Dialog open onClose={onClose} title="Late today" says="The next session begins so much later.">
      <NumberField label="Minutes late" value={minutes} unit="min" least={0} most={MOST} onSet={setMinutes} />
      {error ? (
        <Alert title="Not worked out.">{error.message}</Alert>
      ) : late.data ? (
        <div role="status" className="mt-3 text-sm">
          <p>{late.data.words}</p>
          <ul className="mt-1 text-xs text-soft">
            {late.data.moved.slice(0, SHOWN).map((m, i) => (
              <li key={`${m} ${i}`}>{m}</li>
            ))}
            {late.data.moved.length > SHOWN && <li>and {late.data.moved.length - SHOWN} more</li>}
          </ul>
        </div>
      ) : (
        <p className="mt-3 text-sm text-soft">Seeing what moves…</p>
      )}
      <div className="mt-4 flex gap-2">
        <Button
          tone="go"
          disabled={timetable.busy || !late.data}
          onClick={() =>
            void timetable
              .closest(`The plan begins ${minutes} min later.`, minutes)
              .then((a) => a && onClose())
          }
        >
          Take it over
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}
