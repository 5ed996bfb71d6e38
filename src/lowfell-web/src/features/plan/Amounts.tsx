import { Link, useParams } from "react-router";
import type { Schema } from "../../api/client";
import { capital } from "./layerWords";
import { minutes, ml, taken, takenRange } from "../../shared/words";
import type { Layer } from "./stack";
import type { Material, Sheet } from "./types";
import { Figure, Row, Table } from "../../kit/Table";

/** How much of what: for the chosen layer on this design's pieces, and for the whole set. */
export function Amounts(props: {
  layer: Layer;
  number: number;
  reading: Schema["Reading"];
  sheet: Sheet;
  workshopId: string;
  byId: Map<string, Material>;
}) {
  const { layer, number, reading, sheet, byId } = props;
  const { setId } = useParams();
  const said = reading.layers.find((l) => l.id === layer.id);
  if (!said) return null;
  const needs = said.needs;
  const setNeeds = new Map(reading.setNeeds.map((n) => [n.materialId, n]));
  const labels = [
    ...new Set(
      layer.paint
        .map((p) => byId.get(p.materialId)?.hazards)
        .concat(layer.dilution ? byId.get(layer.dilution.thinnerId)?.hazards : []),
    ),
  ].filter(Boolean);
  const pieces = sheet.zone.pieces;
  return (
    <section aria-labelledby="amounts" className="mt-4">
      <h2 id="amounts" className="mb-1 text-xs text-soft">
        Layer {number} for{" "}
        {pieces === 1 ? "the one piece" : pieces === 2 ? "both pieces" : `all ${pieces} pieces`}
      </h2>
      <Table
        caption="What this layer takes"
        heads={[
          { text: capital(layer.technique) },
          { text: "here", figures: true },
          { text: "set, to do", figures: true, className: "whitespace-normal" },
          { text: "in stock", figures: true, className: "whitespace-normal" },
        ]}
      >
        {needs.map((n) => {
          const whole = setNeeds.get(n.materialId);
          const short = whole && whole.stockMl < whole.ml;
          const m = byId.get(n.materialId);
          // Said as the amount here is: sand by weight.
          const said = (of: number) =>
            n.grams && n.ml > 0 ? taken({ ml: of, grams: (of * n.grams) / n.ml, count: null }) : ml(of);
          return (
            <Row key={n.materialId} head={m?.name} headClass="max-w-[96px] truncate">
              <Figure>
                <b>{taken(n)}</b>
                {!n.count && <span className="block text-soft">{takenRange(n)}</span>}
              </Figure>
              <Figure>{whole ? said(whole.ml) : ""}</Figure>
              <Figure className={short ? "font-semibold text-signal" : "text-soft"}>
                {short && <span aria-hidden="true">▲ </span>}
                {whole ? said(whole.stockMl) : ""}
                {short && <span className="sr-only"> (short)</span>}
              </Figure>
            </Row>
          );
        })}
        <Row head="Hands on">
          <Figure colSpan={3}>
            <b>
              {said.handsOnLowMinutes < 90
                ? `${said.handsOnLowMinutes}–${said.handsOnHighMinutes} min`
                : `${minutes(said.handsOnLowMinutes)} – ${minutes(said.handsOnHighMinutes)}`}
            </b>{" "}
            <span className="text-soft">estimate</span>
          </Figure>
        </Row>
        <Row head="Ready for the next" className="border-b">
          <Figure colSpan={3}>
            <b>{said.neededWaitMinutes > 0 ? minutes(said.neededWaitMinutes) : "at once"}</b>{" "}
            <span className="text-soft">label wins</span>
          </Figure>
        </Row>
      </Table>
      {needs.length > 0 && setNeeds.get(needs[0]!.materialId) && (
        <p className="mt-1.5 text-xs text-soft">
          {Math.round(100 * setNeeds.get(needs[0]!.materialId)!.drivenShare)} % of the{" "}
          {byId.get(needs[0]!.materialId)?.name} that the set still takes goes on{" "}
          {setNeeds.get(needs[0]!.materialId)!.drivenBy}. Losses and 10 % spare are in.
        </p>
      )}
      {layer.paint[0] && (
        <p className="mt-1 flex flex-wrap gap-x-4 text-xs">
          <Link
            className="inline-flex min-h-6 items-center underline"
            to={`/shelf/${props.workshopId}/${layer.paint[0].materialId}`}
          >
            Open {byId.get(layer.paint[0].materialId)?.name} on the shelf
          </Link>
          <Link
            className="inline-flex min-h-6 items-center underline"
            to={`/pots/${setId}?mix=${encodeURIComponent(said.recipeKey)}`}
          >
            Mix it
          </Link>
        </p>
      )}
      {(said.care.length > 0 || labels.length > 0) && (
        <div data-care className="mt-3 border-l-[3px] border-ink bg-card px-2.5 py-2 text-xs">
          <b>Care</b>
          {said.care.map((c) => (
            <p key={c}>{c}</p>
          ))}
          {labels.length > 0 && <p className="text-soft">On the label: {labels.join(" ")}</p>}
          <p className="text-soft">The label and data sheet, local rules and trained advice come first.</p>
        </div>
      )}
    </section>
  );
}
