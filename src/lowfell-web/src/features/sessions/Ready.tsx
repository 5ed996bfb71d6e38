import type { ReactNode } from "react";
import type { Schema } from "../../api/client";
import { Swatch } from "../../kit/Swatch";
import { ml } from "../../shared/words";

/** What to get ready before a session. */
export function Ready({ ready, level: H = "h3" }: { ready: Schema["GetReady"]; level?: "h2" | "h3" }) {
  return (
    <div className="mt-1 grid gap-x-6 gap-y-1 sm:grid-cols-2">
      {ready.prepare.length > 0 && (
        <Part of={H} name="Before you sit down">
          {ready.prepare.map((p) => (
            <li key={p}>{p}</li>
          ))}
        </Part>
      )}
      {ready.pots.length > 0 && (
        <Part of={H} name="Pots to have ready">
          {ready.pots.map((p) => (
            <li key={`${p.words} ${p.thinned}`} className="flex items-center gap-1.5">
              <Swatch colour={p.colour} name="" className="size-3 shrink-0" />
              <span className="min-w-0 flex-1">
                {p.words}
                {p.thinned && <span className="text-soft">, {p.thinned}</span>}
              </span>
              <span className="text-soft tabular-nums">about {ml(p.ml)}</span>
            </li>
          ))}
        </Part>
      )}
      {ready.tools.length > 0 && (
        <Part of={H} name="Tools">
          <li>{ready.tools.join("; ")}</li>
        </Part>
      )}
      {ready.care.length > 0 && (
        <Part of={H} name="Care">
          {ready.care.map((c) => (
            <li key={c} className="text-amber">
              ▲ {c}
            </li>
          ))}
          <li className="text-soft">
            The label and safety data sheet, local rules and trained advice come first.
          </li>
        </Part>
      )}
    </div>
  );
}

function Part({ name, of: H, children }: { name: string; of: "h2" | "h3"; children: ReactNode }) {
  return (
    <div>
      <H className="font-semibold">{name}</H>
      <ul>{children}</ul>
    </div>
  );
}
