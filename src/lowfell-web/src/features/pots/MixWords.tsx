import { ml } from "../../shared/words";
import type { Mix } from "./pots";
import { Figure, Row, Table } from "../../kit/Table";

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
    <Table caption="Where it goes" captionShown className="mt-4 text-xs">
      {mix.places.map((p) => (
        <Row key={p.zoneId + p.layerId} head={`${p.zone}, layer ${p.number} (${p.technique})`}>
          <Figure>{p.pieces === 0 ? "done" : `${p.pieces} of ${p.all.length} to do`}</Figure>
          <Figure className="w-16 font-semibold">{p.pieces === 0 ? "" : ml(p.ml)}</Figure>
        </Row>
      ))}
    </Table>
  );
}
