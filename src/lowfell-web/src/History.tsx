import { useQuery } from "@tanstack/react-query";
import { api, take } from "./api/client";
import { turnAndSay } from "./api/undo";
import { Button } from "./kit/Button";
import { Dialog } from "./kit/Dialog";
import { useSay } from "./kit/Toast";

const query = (workshopId: string) => ({
  queryKey: ["steps", workshopId],
  queryFn: ({ signal }: { signal: AbortSignal }) =>
    take(api.GET("/api/workshops/{workshopId}/steps", { params: { path: { workshopId } }, signal })),
});

const when = (at: string) =>
  new Date(at).toLocaleString(undefined, {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });

/** What was done in a workshop, newest first: each step can be undone or done again by itself. */
export function History({ workshopId, onClose }: { workshopId: string; onClose: () => void }) {
  const steps = useQuery(query(workshopId));
  const say = useSay();
  const turn = (which: "undo" | "redo", step: string) => void turnAndSay(workshopId, which, say, step);
  const list = steps.data?.done ?? [];
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="What was done"
      says="Ctrl Z takes back the newest step of this device. A step further down can be taken back by itself, as long as nothing changed the same since; what was removed can be brought back for 30 days."
    >
      {steps.isLoading && <p className="text-soft">Reading…</p>}
      {steps.data && list.length === 0 && <p className="text-soft">Nothing has been changed yet.</p>}
      <ol className="max-h-[60vh] overflow-y-auto" aria-label="Steps, newest first">
        {list.map((s) => (
          <li key={s.id} className="flex min-h-[34px] items-center gap-3 border-t border-line py-1 text-sm">
            <span className="w-28 shrink-0 text-xs text-soft">{when(s.at)}</span>
            <span className={`min-w-0 flex-1 ${s.undoneAt ? "text-soft line-through" : ""}`}>
              {s.words}
              {!s.here && <span className="text-xs text-soft no-underline"> · on another device</span>}
            </span>
            {s.undoneAt ? (
              <Button aria-label={`Do again: ${s.words}`} onClick={() => turn("redo", s.id)}>
                Do again
              </Button>
            ) : (
              <Button aria-label={`Undo: ${s.words}`} onClick={() => turn("undo", s.id)}>
                {s.removes ? "Bring back" : "Undo"}
              </Button>
            )}
          </li>
        ))}
      </ol>
      <div className="mt-3">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  );
}
