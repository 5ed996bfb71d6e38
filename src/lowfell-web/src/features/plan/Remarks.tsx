import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { severities } from "../../kit/severity";
import { Accepted, LiveWith } from "./LiveWith";
import { LaidAlready } from "./LaidAlready";
import type { Progress } from "./HalfDone";
import type { SoFar } from "./soFar";
import { Remedies } from "./Remedies";
import type { Edit, Layer } from "./stack";

type Finding = Schema["FindingDto"];

/** Remarks in the margin, worst first, each with its reason and its ways out; those lived with stay below, quietly. */
export function Remarks(props: {
  findings: Finding[];
  layers: Layer[];
  soFar: readonly SoFar[];
  /** How many layers are on the piece that is judged; 0 while it is the plan. */
  laid: number;
  onProgress: (progress: Progress) => void;
  zoneId: string;
  pieces: number;
  workshopId: string;
  stored: boolean;
  selected: string | null;
  onSelect: (id: string) => void;
  onApply: (edits: readonly Edit[]) => void;
  onReread: () => void;
}) {
  const number = (id: string) => props.layers.findIndex((l) => l.id === id) + 1;
  const open = props.findings.filter((f) => !f.accepted);
  const lived = props.findings.filter((f) => f.accepted);
  return (
    <section aria-labelledby="remarks" aria-live="polite">
      <h2 id="remarks" className="mb-2 text-xs text-soft">
        What the stack says
      </h2>
      {open.length === 0 && (
        <p className="mb-2 border-l-[3px] border-line bg-card px-2.5 py-2 text-xs text-soft">
          {props.layers.length === 0
            ? "Nothing yet: there are no layers."
            : "Nothing against this order. It should hold."}
        </p>
      )}
      <ul>
        {open.map((f) => {
          const { box, word, sign } = severities[f.severity];
          const numbers = f.layers.map(number).filter((n) => n > 0);
          return (
            <li
              key={`${f.rule}.${f.layers[0]}`}
              data-finding={f.rule}
              data-hangs-on={f.layers[0]}
              className={`mb-2 border-l-[3px] px-2.5 pt-1.5 pb-2 text-xs ${box}`}
            >
              <button
                type="button"
                className="block min-h-6 text-left font-bold"
                onClick={() => f.layers[0] && props.onSelect(f.layers[0])}
              >
                <span aria-hidden="true">{sign} </span>
                <span className="sr-only">{word}: layer </span>
                {numbers[0]} · {f.title}
              </button>
              <p className="mt-0.5">
                {f.why}
                {f.schools.length > 0 && (
                  <>
                    {" "}
                    <Link className="whitespace-nowrap text-soft underline" to={`/house/${props.workshopId}`}>
                      House rule: {f.schools.join(", ")}
                    </Link>
                  </>
                )}
              </p>
              {f.remedies.length > 0 && (
                <Remedies
                  zoneId={props.zoneId}
                  pieces={props.pieces}
                  layers={props.layers}
                  remedies={f.remedies}
                  onApply={props.onApply}
                />
              )}
              <LaidAlready
                finding={f}
                numbers={numbers}
                soFar={props.soFar}
                laid={props.laid}
                onProgress={props.onProgress}
              />
              <LiveWith zoneId={props.zoneId} finding={f} disabled={!props.stored} onDone={props.onReread} />
            </li>
          );
        })}
      </ul>
      {lived.length > 0 && (
        <ul aria-label="Remarks you live with">
          {lived.map((f) => (
            <Accepted
              key={`${f.rule}.${f.layers[0]}`}
              finding={f}
              number={number(f.layers[0] ?? "")}
              onSelect={() => f.layers[0] && props.onSelect(f.layers[0])}
              onDone={props.onReread}
            />
          ))}
        </ul>
      )}
    </section>
  );
}
