import type { Schema } from "../../api/client";
import { clock, day, pieceWords } from "./evenings";

/** The operations that set the finish, in turn. */
export function Chain({ plan }: { plan: Schema["SessionsReading"] }) {
  const chain = plan.sessions
    .flatMap((s) => s.operations)
    .filter((o) => o.binds !== null)
    .sort((a, b) => a.binds! - b.binds!);
  if (chain.length === 0) return null;
  return (
    <section aria-label="What sets the finish">
      <h2 className="text-sm font-semibold">What sets the finish</h2>
      <p className="text-xs text-soft">
        Nothing ends sooner unless one of these does. Nothing can end before{" "}
        {plan.soonestFinish && day(plan.soonestFinish)}, or in fewer than {plan.fewestSessions} sessions.
      </p>
      <ol className="mt-1 text-xs">
        {chain.slice(-LAST).map((o) => (
          <li key={o.id} className="border-t border-line py-1">
            <b>{o.technique}</b>, {o.zone} on {o.design} ({pieceWords(o)})
            <span className="block text-soft">
              {day(o.start)}, {clock(o.start)}
            </span>
          </li>
        ))}
      </ol>
      {chain.length > LAST && <p className="text-xs text-soft">and {chain.length - LAST} before these.</p>}
    </section>
  );
}

const LAST = 12;
