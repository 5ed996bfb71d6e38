import { ml } from "../../shared/words";
import type { Mix } from "./pots";

/** How much of a mix the set still takes, and whether the shelf gives it. */
export function Needs({ mix }: { mix: Mix }) {
  const rest = Math.max(0, mix.ml - mix.inPotsMl);
  return (
    <p className="text-xs" data-needs>
      {mix.ml === 0 ? (
        "Everything the plan wants it for is done."
      ) : (
        <>
          The set still takes <b>{ml(mix.ml)}</b>
          {mix.inPotsMl > 0 && `; ${ml(mix.inPotsMl)} stand in pots`}. {Math.round(mix.drivesShare * 100)} %
          goes on {mix.drives}.
          {mix.shortMl > 0 && (
            <b className="text-signal">
              {" "}
              <span aria-hidden="true">▲ </span>
              {ml(mix.shortMl)} of {ml(rest)} cannot be mixed: {mix.shortOf} runs out.
            </b>
          )}
        </>
      )}{" "}
      <span className="text-soft">Losses and 10 % spare are in.</span>
    </p>
  );
}

/** The layers that a mix goes on. */
export function Places({ mix }: { mix: Mix }) {
  return (
    <table className="mt-4 w-full text-xs">
      <caption className="text-left text-sm font-semibold">Where it goes</caption>
      <tbody>
        {mix.places.map((p) => (
          <tr key={p.zoneId + p.layerId} className="border-t border-line">
            <td className="py-1">
              {p.zone}, layer {p.number} ({p.technique})
            </td>
            <td className="py-1 text-right whitespace-nowrap">
              {p.pieces === 0 ? "done" : `${p.pieces} of ${p.all.length} to do`}
            </td>
            <td className="w-16 py-1 text-right font-semibold whitespace-nowrap">
              {p.pieces === 0 ? "" : ml(p.ml)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
