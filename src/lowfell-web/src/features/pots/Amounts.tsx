import { Choice } from "../../kit/Field";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { hindered } from "../../api/hindered";
import { Link } from "react-router";
import { api, take } from "../../api/client";
import { Button } from "../../kit/Button";
import { Trouble } from "../../kit/Trouble";
import { Wide } from "../../kit/Wide";
import { ml, mlRange, taken, takenRange } from "../../shared/words";
import { Figure, Row, Table } from "../../kit/Table";
import { Reserve } from "./Reserve";

/** What every layer still takes and how that comes about, and how much of it for one sitting at the bench. */
export function Amounts({ setId }: { setId: string }) {
  const [sitting, setSitting] = useState(6);
  const amounts = useQuery({
    queryKey: ["pots", setId, "amounts", sitting],
    queryFn: ({ signal }) =>
      take(api.GET("/api/pots/{setId}/amounts", { params: { path: { setId }, query: { sitting } }, signal })),
    placeholderData: keepPreviousData,
  });
  const error = hindered(amounts);
  if (error) return <Trouble error={error} retry={() => void amounts.refetch()} />;
  if (!amounts.data) return <p className="p-6 text-soft">Adding up every layer…</p>;
  const lines = amounts.data.lines.filter((l) => l.pieces > 0);
  const done = amounts.data.lines.length - lines.length;
  const head = [
    "Pieces",
    "On the surface",
    "Spray, rag, sponge",
    "Fills",
    "In cup and brush",
    "Spare",
    "In the pot",
    "A sitting",
  ];
  return (
    <div className="h-full overflow-y-auto px-5 pt-2 pb-6 print:h-auto print:overflow-visible">
      <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
        <p className="min-w-0 basis-full text-xs text-soft lg:flex-1 lg:basis-0">
          What is still to be laid, layer by layer: wet film ÷ what reaches the surface + what stays in the
          tool at every fill, and 10 % spare (estimates); below it, what a thin and a heavy hand take. Zones
          sprayed with one mix share their cups.{" "}
          {done > 0 &&
            (done === 1 ? "One layer is done and left out." : `${done} layers are done and left out.`)}
        </p>
        <div className="no-print flex flex-wrap items-end gap-3">
          <Reserve reserve={amounts.data.reserve} />
          <Choice
            beside
            label="Pieces in a sitting"
            value={String(sitting)}
            options={["1", "2", "3", "4", "6", "8", "12", "24"]}
            onChange={(n) => setSitting(Number(n))}
          />
        </div>
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      {lines.length === 0 && (
        <p className="mt-4 text-soft">
          {done > 0 ? "Everything that is planned is laid." : "No layer of this set takes anything yet."}{" "}
          <Link className="underline" to={`/plan/${setId}`}>
            Plan more layers
          </Link>
        </p>
      )}
      <Wide label="What every layer takes">
        <Table
          className="mt-2 text-xs print:text-[9px] print:leading-tight print:[&_td]:py-px print:[&_th]:py-px"
          data-amounts
          hidden={lines.length === 0}
          onCards
          caption="What every layer takes"
          heads={[{ text: "Layer" }, ...head.map((text) => ({ text, figures: true }))]}
        >
          {lines.map((l) => (
            <Row
              key={l.zoneId + l.layerId}
              head={
                <>
                  <Link className="font-semibold underline" to={`/plan/${setId}/${l.zoneId}`}>
                    {l.paint}
                  </Link>
                  <span className="block text-soft print:ml-2 print:inline">
                    {l.zone}, layer {l.number}, {l.technique}
                  </span>
                </>
              }
            >
              <Figure>{l.pieces}</Figure>
              <Figure>{l.things > 0 ? "–" : ml(l.onSurfaceMl)}</Figure>
              <Figure>{l.transferLossMl > 0 ? ml(l.transferLossMl) : "–"}</Figure>
              <Figure>{l.fills || "–"}</Figure>
              <Figure>{l.fillLossMl > 0 ? ml(l.fillLossMl) : "–"}</Figure>
              <Figure>{l.things > 0 ? "–" : ml(l.marginMl)}</Figure>
              <Figure>
                <b>{taken({ ml: l.totalMl, grams: l.grams, count: l.things })}</b>
                {l.things === 0 && (
                  <span className="block text-soft print:ml-1 print:inline">
                    {takenRange({ ...l, ml: l.totalMl })}
                  </span>
                )}
              </Figure>
              <Figure>{l.things > 0 ? "–" : sittings(l.sittingsMl)}</Figure>
            </Row>
          ))}
          {amounts.data.reserves.map((r) => (
            <Row
              key={`kept ${r.recipeKey}`}
              head={
                <>
                  <span className="font-semibold">{r.paint}</span>
                  <span className="block text-soft print:ml-2 print:inline">
                    kept back for corrections and pieces to come
                  </span>
                </>
              }
            >
              <td colSpan={6} />
              <Figure>
                <b>{ml(r.ml)}</b>
              </Figure>
              <td />
            </Row>
          ))}
          <Row className="border-t-2 border-ink!" headClass="font-semibold!" head="All of it">
            <td colSpan={6} />
            <Figure>
              <b>{ml(amounts.data.totalMl)}</b>
              <span className="block text-soft print:ml-1 print:inline">
                {mlRange(amounts.data.lowMl, amounts.data.highMl)}
              </span>
            </Figure>
            <td />
          </Row>
        </Table>
      </Wide>
    </div>
  );
}

/** Sittings are alike but for the last: "2 × 24 ml, then 8.3 ml". */
function sittings(list: number[]): string {
  const first = list[0];
  const last = list.at(-1);
  if (first === undefined || last === undefined) return "";
  if (list.length === 1) return ml(first);
  const alike = list.filter((n) => n === first).length;
  const most = alike === 1 ? ml(first) : `${alike} × ${ml(first)}`;
  return last === first ? most : `${most}, then ${ml(last)}`;
}
