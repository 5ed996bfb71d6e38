import { Button } from "../../kit/Button";
import { ml, percent } from "../../shared/words";
import type { Variation } from "./types";

/** Which material goes on how many pieces, beside what was asked for and what is there. */
export function Dealt(props: { plan: Variation; busy: boolean; onByShelf: () => void }) {
  const { plan } = props;
  if (plan.dealt.length === 0) return null;
  return (
    <section aria-label="Dealt materials" className="mt-3">
      <table className="text-sm">
        <caption className="sr-only">Materials that are dealt to the pieces</caption>
        <thead className="text-xs text-soft">
          <tr>
            <th className="pr-6 text-left font-normal">Material</th>
            <th className="pr-6 text-right font-normal">Parts</th>
            <th className="pr-6 text-right font-normal">Asked</th>
            <th className="pr-6 text-right font-normal">Of the pieces</th>
            <th className="pr-6 text-right font-normal">Takes about</th>
            <th className="text-right font-normal">There is</th>
          </tr>
        </thead>
        <tbody>
          {plan.dealt.map((d) => (
            <tr key={d.materialId} className="border-t border-line/50">
              <th className="pr-6 text-left font-semibold">{d.name}</th>
              <td className="pr-6 text-right">{d.parts}</td>
              <td className="pr-6 text-right">{percent(d.share)}</td>
              <td className="pr-6 text-right">{percent(d.pieceShare)}</td>
              <td className="pr-6 text-right">{ml(d.needsMl)}</td>
              <td className={`text-right ${d.stockMl < d.needsMl ? "text-amber" : ""}`}>
                {d.stockMl < d.needsMl && "▲ only "}
                {ml(d.stockMl)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button className="no-print mt-2" disabled={props.busy} onClick={props.onByShelf}>
        Share them as on the shelf
      </Button>
    </section>
  );
}
