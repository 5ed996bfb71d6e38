import { useState, type ReactNode } from "react";
import { Button } from "../../kit/Button";
import { useSettle, type Unfit } from "./useUnfit";

const when = (at: string | null) =>
  at
    ? new Date(at).toLocaleString("en-GB", {
        weekday: "short",
        day: "numeric",
        month: "short",
        hour: "2-digit",
        minute: "2-digit",
      })
    : "at a time that is not known";

/** What did not fit, with what can be done about each. */
export function UnfitList(props: {
  workshopId: string;
  entries: readonly Unfit[];
  /** Opens what is needed to put one right; left out where the plan cannot be seen. */
  onCorrect?: (entry: Unfit) => void;
  empty?: ReactNode;
}) {
  const { entries, onCorrect } = props;
  const settle = useSettle(props.workshopId);
  const [whole, setWhole] = useState("");
  const open = entries.filter((e) => !e.settled);
  const decided = entries.filter((e) => e.settled);
  return (
    <>
      {open.length === 0 && props.empty}
      <ul aria-label="Waiting for you to decide">
        {open.map((e) => (
          <li key={e.id} data-unfit={e.id} className="border-b border-line/60 py-2">
            <p className="font-semibold break-words">{e.words}</p>
            <p className="text-xs text-soft">
              {when(e.happenedAt)}, told by {e.actor || "somebody"} on {e.device}
            </p>
            <p className="mt-0.5 break-words text-amber">▲ {e.why}</p>
            <div className="mt-1.5 flex flex-wrap gap-1.5">
              <Button
                tone="plain"
                className="min-h-10"
                disabled={settle.busy || !e.kind}
                aria-label={`Take in after all: ${e.words}`}
                onClick={() => void settle.takeIn(e.id)}
              >
                Take in after all
              </Button>
              {onCorrect && e.kind && (
                <Button
                  className="min-h-10"
                  aria-haspopup="dialog"
                  disabled={settle.busy}
                  aria-label={`Put right: ${e.words}`}
                  onClick={() => onCorrect(e)}
                >
                  Put right…
                </Button>
              )}
              <Button
                className="min-h-10"
                disabled={settle.busy}
                aria-label={`Let go: ${e.words}`}
                onClick={() => void settle.letGo(e.id)}
              >
                Let go
              </Button>
              <Button
                className="min-h-10"
                aria-expanded={whole === e.id}
                aria-label={`As it was told: ${e.words}`}
                onClick={() => setWhole(whole === e.id ? "" : e.id)}
              >
                As it was told
              </Button>
            </div>
            {whole === e.id && (
              <pre className="mt-1.5 max-h-48 overflow-auto rounded-[3px] border border-line bg-paper p-2 text-xs break-all whitespace-pre-wrap">
                {e.told}
              </pre>
            )}
          </li>
        ))}
      </ul>
      {decided.length > 0 && (
        <section aria-label="Decided lately" className="mt-4">
          <h2 className="text-sm font-semibold">Decided lately</h2>
          <ul>
            {decided.map((e) => (
              <li
                key={e.id}
                data-decided={e.id}
                className="flex flex-wrap items-baseline gap-x-3 py-1 text-sm"
              >
                <span className="min-w-0 break-words">{e.words}</span>
                <span className="text-soft">
                  {e.settled} by {e.settledBy}, {when(e.settledAt)}
                </span>
                <Button
                  className="ml-auto min-h-10"
                  disabled={settle.busy}
                  aria-label={`Undo: ${e.words}`}
                  onClick={() => void settle.undo(e.id)}
                >
                  Undo
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
