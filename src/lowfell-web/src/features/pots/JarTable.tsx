import type { Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import type { Unit } from "../../kit/form/figures";
import { NumberField } from "../../kit/NumberField";
import { short, type Look } from "./pots";
import { Figure, Row, Table } from "../../kit/Table";

type Measure = NonNullable<Schema["JarMeasure"]>;
export type Change = { materialId: string; measure: Measure; value: number };

const heads: { measure: Measure; text: string; unit: Unit }[] = [
  { measure: "parts", text: "Parts", unit: "" },
  { measure: "percent", text: "Share, %", unit: "%" },
  { measure: "drops", text: "Drops", unit: "drops" },
  { measure: "ml", text: "ml", unit: "ml" },
  { measure: "grams", text: "g", unit: "g" },
];

const two = (n: number) => Math.round(n * 100) / 100;

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
    <Table
      data-jar
      caption="What is in the jar, in every measure"
      heads={[
        { text: "Component" },
        ...heads.map((h) => ({ text: h.text, figures: true })),
        { text: "Do", hidden: true },
      ]}
    >
      {look.lines.map((l) => {
        const fault = props.fault?.materialId === l.materialId ? props.fault : null;
        const value: Record<Measure, number> = {
          parts: Number(l.parts),
          percent: two(l.percent),
          // Nobody counts parts of drops.
          drops: l.wholeUnits,
          ml: two(l.ml),
          grams: two(l.grams),
        };
        const low = l.stockMl < l.ml;
        return (
          <Row
            key={l.materialId}
            className="align-top"
            headClass="max-w-[170px] pr-2"
            head={
              <>
                <span className="block truncate font-semibold">{l.name}</span>
                <span className={low ? "font-semibold text-signal" : "text-soft"}>
                  {low && <span aria-hidden="true">▲ </span>}
                  {short(l.stockMl)} ml on the shelf
                </span>
              </>
            }
          >
            {heads.map((h) => (
              <Figure key={h.measure}>
                <NumberField
                  hideLabel
                  bare
                  label={`${h.text} of ${l.name}`}
                  unit={h.unit}
                  value={value[h.measure]}
                  fault={fault?.measure === h.measure ? fault.message : undefined}
                  className="!w-[64px] !px-1.5 text-right"
                  onSet={(n) => props.onChange({ materialId: l.materialId, measure: h.measure, value: n })}
                />
                {h.measure === "drops" && (
                  <button
                    type="button"
                    className="block min-h-6 w-full text-right text-soft underline"
                    aria-label={`Calibrate the drop of ${l.name}, now ${l.unitMl} ml`}
                    aria-haspopup="dialog"
                    onClick={() => props.onBottle(l.materialId)}
                  >
                    {l.unitWord === "drops" ? `${l.unitMl} ml${l.calibrated ? "" : " est."}` : "loads"}
                  </button>
                )}
                {h.measure === "grams" && !l.weighed && <span className="block text-soft">est.</span>}
              </Figure>
            ))}
            <Figure>
              <Button
                aria-label={`Take ${l.name} out`}
                disabled={look.lines.length === 1}
                onClick={() => props.onRemove(l.materialId)}
              >
                ✕
              </Button>
            </Figure>
          </Row>
        );
      })}
    </Table>
  );
}
