import type { Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import type { Edit, Layer } from "./stack";

type Finding = Schema["FindingDto"];

const look = {
  stop: { box: "border-signal bg-signal-wash", word: "Stop", sign: "■" },
  caution: { box: "border-amber bg-amber-wash", word: "Caution", sign: "▲" },
  hint: { box: "border-tide bg-tide-wash", word: "Hint", sign: "●" },
} as const;

/** Remarks in the margin, worst first, each with its reason and its ways out. */
export function Remarks(props: {
  findings: Finding[];
  layers: Layer[];
  selected: string | null;
  onSelect: (id: string) => void;
  onApply: (edits: readonly Edit[]) => void;
}) {
  const number = (id: string) => props.layers.findIndex((l) => l.id === id) + 1;
  return (
    <section aria-labelledby="remarks" aria-live="polite">
      <h2 id="remarks" className="mb-2 text-xs text-soft">
        What the stack says
      </h2>
      {props.findings.length === 0 && (
        <p className="border-l-[3px] border-line bg-card px-2.5 py-2 text-xs text-soft">
          {props.layers.length === 0
            ? "Nothing yet: there are no layers."
            : "Nothing against this order. It should hold."}
        </p>
      )}
      <ul>
        {props.findings.map((f) => {
          const { box, word, sign } = look[f.severity];
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
              <p className="mt-0.5">{f.why}</p>
              {f.remedies.length > 0 && (
                <div className="mt-1.5 flex flex-wrap gap-1.5">
                  {f.remedies.map((r, i) => (
                    <Button
                      key={r.id}
                      data-remedy={r.id}
                      tone={i === 0 ? "plain" : "quiet"}
                      className="!whitespace-normal text-left"
                      onClick={() => props.onApply(r.edits)}
                    >
                      {r.text}
                    </Button>
                  ))}
                </div>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
