import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schema } from "../../../api/client";
import { Dialog } from "../../../kit/Dialog";
import { Choice } from "../../../kit/Field";
import { Slide } from "../../../kit/Slide";
import { Swatch } from "../../../kit/Swatch";
import { capital, detailWords, paintWords } from "../layerWords";
import type { Layer } from "../stack";
import type { ColourProps } from "./props";
import { paintShare, partsOf } from "./share";
import { useAnswer } from "./useAnswer";
import { differs } from "../../../shared/words";
import { Cell, Figure, Row, Table } from "../../../kit/Table";

/** This zone's stack beside another: a treatment of the set, or the same with one layer from another pot or dilution. */
export function CompareDialog(props: ColourProps & { onClose: () => void }) {
  const { sheet, setId, layers, reading, layer, byId, materials } = props;
  const treatments = useQuery({
    queryKey: ["treatments", setId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/plan/sets/{setId}/treatments", { params: { path: { setId } }, signal })),
  });
  const others = treatments.data?.filter((t) => t.id !== sheet.treatmentId) ?? [];
  const piece = "the same, one layer different";
  const [chosen, setChosen] = useState("");
  const what = chosen || (layer && layer.paint.length > 0 ? piece : (others[0]?.id ?? ""));
  const [varied, setVaried] = useState<Layer | null>(layer ?? null);
  const withLayers = what === piece && varied ? layers.map((l) => (l.id === varied.id ? varied : l)) : null;
  const { answer, fault } = useAnswer(
    what && (withLayers || what !== piece)
      ? () =>
          take(
            api.POST("/api/plan/zones/{zoneId}/compare", {
              params: { path: { zoneId: sheet.zone.id } },
              body: withLayers
                ? { layers, treatmentId: null, with: withLayers }
                : { layers, treatmentId: what, with: null },
            }),
          )
      : null,
    JSON.stringify([layers, what, withLayers]),
  );
  const kind = byId.get(varied?.paint[0]?.materialId ?? "")?.kind;
  const thinner = varied?.dilution?.thinnerId ?? materials.find((m) => m.kind === "thinner")?.id;

  return (
    <Dialog
      open
      wide
      onClose={props.onClose}
      title="Side by side"
      says={`What ${sheet.zone.name} looks like either way, layer by layer from the bottom.`}
    >
      <div className="grid grid-cols-1 items-end gap-3 md:grid-cols-2">
        <Choice
          label="Compare with"
          value={what}
          options={[
            ...(layer && layer.paint.length > 0 ? [{ value: piece, text: capital(piece) }] : []),
            ...others.map((t) => ({
              value: t.id,
              text: `${t.name}, ${t.layers} layers`,
              group: "Treatments of the set",
            })),
          ]}
          onChange={setChosen}
        />
        {what === piece && varied && (
          <Choice
            label={`Layer ${layers.findIndex((l) => l.id === varied.id) + 1}, ${varied.technique}, from`}
            value={varied.paint[0]?.materialId ?? ""}
            options={materials.filter((m) => m.kind === kind).map((m) => ({ value: m.id, text: m.name }))}
            onChange={(materialId) => setVaried({ ...varied, paint: [{ materialId, parts: 1 }] })}
          />
        )}
        {what === piece && varied && thinner && (
          <Slide
            label="Dilution of the other pot"
            says={varied.dilution ? `${varied.dilution.paint} : ${varied.dilution.thinner}` : "neat"}
            valueText={`${Math.round(paintShare(varied.dilution))} percent paint`}
            value={Math.round(paintShare(varied.dilution))}
            min={10}
            max={100}
            step={1}
            onChange={(percent) => {
              const parts = partsOf(percent);
              setVaried({ ...varied, dilution: parts && { thinnerId: thinner, ...parts } });
            }}
          />
        )}
        {what === piece && varied && (
          <Slide
            label="Laid how heavily"
            says={varied.strength === 1 ? "as usual" : `${varied.strength} of usual`}
            value={varied.strength}
            min={0}
            max={2}
            step={0.05}
            onChange={(strength) => setVaried({ ...varied, strength: Math.round(strength * 100) / 100 })}
          />
        )}
      </div>
      {fault && (
        <p role="alert" className="mt-3 text-xs">
          ■ {fault}
        </p>
      )}
      {answer && (
        <div className="mt-4" data-compared={answer.average.difference}>
          <p role="status">
            Between the two, from the table: <b>{differs(answer.average.difference)}</b>. The other is{" "}
            {answer.average.words}.
          </p>
          <Table
            caption="Position by position"
            className="mt-2 text-xs"
            heads={[
              { text: "finished" },
              { text: "this" },
              { text: "the other" },
              { text: "apart", figures: true },
              { text: "the other is", className: "pl-3" },
            ]}
          >
            {answer.positions.map((p) => (
              <Row key={p.position} head={p.position}>
                <Cell>
                  <Swatch colour={p.mine} name="this" className="h-6 w-full" />
                </Cell>
                <Cell>
                  <Swatch colour={p.other} name="the other" className="h-6 w-full" />
                </Cell>
                <Figure className="font-semibold">{differs(p.difference)}</Figure>
                <Cell className="pl-3">{p.words}</Cell>
              </Row>
            ))}
          </Table>
          <div className="mt-4 grid grid-cols-2 gap-5">
            <Strip title="This" layers={layers} reading={reading} byId={byId} />
            <Strip title="The other" layers={answer.otherLayers} reading={answer.other} byId={byId} />
          </div>
        </div>
      )}
    </Dialog>
  );
}

/** A stack in short: newest on top, each layer with its three colours. */
function Strip(props: {
  title: string;
  layers: Layer[];
  reading: Schema["Reading"];
  byId: ColourProps["byId"];
}) {
  const said = new Map(props.reading.layers.map((l) => [l.id, l]));
  return (
    <section>
      <h3 className="mb-1 text-sm font-semibold">{props.title}</h3>
      <ol reversed className="border-t border-hair text-xs">
        {[...props.layers].reverse().map((l) => {
          const r = said.get(l.id);
          return (
            <li key={l.id} className="flex items-stretch gap-2 border-b border-hair">
              <span className="min-w-0 flex-1 py-0.5">
                <span className="block truncate">
                  <b>{capital(l.technique)}</b> {paintWords(l, props.byId)}
                </span>
                <span className="block truncate text-soft">{detailWords(l, props.byId)}</span>
              </span>
              {r && (
                <span className="grid w-20 shrink-0 grid-cols-3">
                  {(["recess", "field", "raised"] as const).map((p) => (
                    <Swatch key={p} colour={r[p]} name={p} className="h-full w-full" />
                  ))}
                </span>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
