import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Select } from "../../kit/Select";

type Kind = "rim" | "label";

const kinds: readonly { value: Kind; text: string }[] = [
  { value: "label", text: "Labels, 34 by 12 mm" },
  { value: "rim", text: "Rim numbers, 4 mm high" },
];

/** Every piece of a set on paper, to be cut out: a label to lie beside it, or its number for the rim. Printed at its true size. */
export function LabelsSheet({ set }: { set: Schema["SetSheet"] }) {
  const [kind, setKind] = useState<Kind>("label");
  const designs = set.designs
    .filter((d) => !d.putAwayAt)
    .map((d) => ({ ...d, pieces: d.pieces.filter((p) => !p.putAwayAt && !p.parentId) }))
    .filter((d) => d.pieces.length > 0);
  return (
    <div className="h-full overflow-y-auto px-5 pt-3 pb-8 print:overflow-visible print:p-0">
      <div className="no-print mb-3 flex flex-wrap items-end gap-3">
        <Select label="What to print" value={kind} options={kinds} onChange={setKind} />
        <Button tone="go" onClick={() => window.print()}>
          Print
        </Button>
        <Link className="inline-flex min-h-6 items-center text-sm underline" to="?">
          Back to the set
        </Link>
        <p className="basis-full text-xs text-soft">Print at 100 %, without fitting it to the page.</p>
      </div>
      <h1 className="no-print text-lg font-semibold">Labels of {set.name}</h1>
      {designs.map((d) => (
        <section key={d.id} className="mt-3 print:mt-1">
          <h2 className="text-xs text-soft">{d.name}</h2>
          <ul className={`flex flex-wrap ${kind === "rim" ? "gap-[2mm]" : ""}`}>
            {d.pieces.map((p) => (
              <li
                key={p.id}
                data-label={kind}
                className={
                  kind === "rim"
                    ? "h-[4mm] border border-dotted border-line px-[1mm] text-[3mm] leading-[4mm] font-semibold"
                    : "h-[12mm] w-[34mm] overflow-hidden border border-dotted border-line px-[1.5mm] py-[1mm] leading-tight"
                }
              >
                {kind === "rim" ? (
                  p.rimNumber || p.label
                ) : (
                  <>
                    <b className="block truncate text-[4mm] leading-[4.2mm]">
                      {p.label}
                      {p.rimNumber && p.rimNumber !== p.label && ` · ${p.rimNumber}`}
                    </b>
                    <span className="block truncate text-[2.4mm]">{d.name}</span>
                    <span className="block truncate text-[2.4mm]">{set.name}</span>
                  </>
                )}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
