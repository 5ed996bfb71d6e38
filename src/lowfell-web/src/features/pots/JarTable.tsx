import { useState } from "react";
import type { Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { short, typed, type Look } from "./pots";

type Measure = NonNullable<Schema["JarMeasure"]>;
export type Change = { materialId: string; measure: Measure; value: number };

const heads: { measure: Measure; text: string }[] = [
  { measure: "parts", text: "Parts" },
  { measure: "percent", text: "Share, %" },
  { measure: "drops", text: "Drops" },
  { measure: "ml", text: "ml" },
  { measure: "grams", text: "g" },
];

/** Every component in every measure at once. Parts and share change what it is; drops, ml and grams change how much. */
export function JarTable(props: {
  look: Look;
  fault: { materialId: string; measure: Measure; message: string } | null;
  onChange: (change: Change) => void;
  onRemove: (materialId: string) => void;
  onBottle: (materialId: string) => void;
}) {
  const { look } = props;
  return (
    <table className="w-full text-xs" data-jar>
      <caption className="sr-only">What is in the jar, in every measure</caption>
      <thead>
        <tr className="text-left text-soft">
          <th scope="col" className="py-1 font-normal">
            Component
          </th>
          {heads.map((h) => (
            <th key={h.measure} scope="col" className="px-1 py-1 text-right font-normal">
              {h.text}
            </th>
          ))}
          <th scope="col">
            <span className="sr-only">Do</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {look.lines.map((l) => {
          const fault = props.fault?.materialId === l.materialId ? props.fault : null;
          const value: Record<Measure, string> = {
            parts: l.parts,
            percent: short(l.percent),
            // Past a score or so nobody counts halves of drops.
            drops: l.units >= 20 ? String(Math.round(l.units)) : short(l.units),
            ml: short(l.ml),
            grams: short(l.grams),
          };
          const low = l.stockMl < l.ml;
          return (
            <tr key={l.materialId} className="border-t border-line align-top">
              <th scope="row" className="max-w-[170px] py-1.5 pr-2 text-left font-normal">
                <span className="block truncate font-semibold" title={l.name}>
                  {l.name}
                </span>
                <span className={low ? "font-semibold text-signal" : "text-soft"}>
                  {low && <span aria-hidden="true">▲ </span>}
                  {short(l.stockMl)} ml on the shelf
                </span>
                {fault && <span className="block font-medium text-signal">{fault.message}</span>}
              </th>
              {heads.map((h) => (
                <td key={h.measure} className="px-1 py-1.5 text-right">
                  <Cell
                    label={`${h.text} of ${l.name}`}
                    text={value[h.measure]}
                    bad={fault?.measure === h.measure}
                    onSet={(n) => props.onChange({ materialId: l.materialId, measure: h.measure, value: n })}
                  />
                  {h.measure === "drops" && (
                    <button
                      type="button"
                      className="block min-h-6 w-full text-right text-soft underline"
                      aria-label={`Calibrate the drop of ${l.name}, now ${l.unitMl} ml`}
                      onClick={() => props.onBottle(l.materialId)}
                    >
                      {l.unitWord === "drops" ? `${l.unitMl} ml${l.calibrated ? "" : " est."}` : "loads"}
                    </button>
                  )}
                  {h.measure === "grams" && !l.weighed && <span className="block text-soft">est.</span>}
                </td>
              ))}
              <td className="py-1.5 text-right">
                <Button
                  aria-label={`Take ${l.name} out`}
                  disabled={look.lines.length === 1}
                  onClick={() => props.onRemove(l.materialId)}
                >
                  ✕
                </Button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** A number that takes effect on Enter or when left; the others follow then. */
function Cell(props: { label: string; text: string; bad: boolean; onSet: (value: number) => void }) {
  const [text, setText] = useState(props.text);
  const [from, setFrom] = useState(props.text);
  if (from !== props.text) {
    setFrom(props.text);
    setText(props.text);
  }
  const settle = () => {
    if (text === props.text) return;
    const value = typed(text);
    if (value === null) return setText(props.text);
    props.onSet(value);
  };
  return (
    <input
      aria-label={props.label}
      aria-invalid={props.bad || undefined}
      inputMode="decimal"
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={settle}
      onKeyDown={(e) => {
        if (e.key === "Enter") settle();
        if (e.key === "Escape") setText(props.text);
      }}
      className={`min-h-[26px] w-[58px] rounded-[3px] border bg-card px-1.5 text-right ${props.bad ? "border-signal" : "border-line"}`}
    />
  );
}
