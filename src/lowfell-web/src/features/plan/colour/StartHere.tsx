import { useState } from "react";
import { api, take, type Schema } from "../../../api/client";
import { Swatch } from "../../../kit/Swatch";
import { useCommands } from "../../../kit/keys";
import type { Layer } from "../stack";
import type { ColourProps } from "./props";
import { useAnswer } from "./useAnswer";
import { differs } from "../../../shared/words";

const coating = ["prime", "base coat", "rim", "texture paste", "render", "seal texture"];

/** Turns the prediction round: what should this layer be, so that the finished zone ends where it should? */
export function StartHere({
  sheet,
  layers,
  layer,
  materials,
  byId,
  onChange,
}: ColourProps & { layer: Layer }) {
  const [all, setAll] = useState(false);
  const wanted = sheet.zone.targetColour;
  const asks = wanted && coating.includes(layer.technique);
  const { answer, fault, fresh } = useAnswer(
    asks
      ? () =>
          take(
            api.POST("/api/plan/zones/{zoneId}/start", {
              params: { path: { zoneId: sheet.zone.id } },
              body: {
                layers,
                layerId: layer.id,
                position: sheet.zone.targetPosition ?? "field",
                wanted,
                count: 8,
                outOfStockToo: all,
              },
            }),
          )
      : null,
    JSON.stringify([layers, layer.id, wanted, sheet.zone.targetPosition, all, materials.length]),
    200,
  );

  const apply = (s: Schema["StartDto"]) =>
    onChange({ ...layer, paint: s.paint, dilution: s.dilution, coats: s.coats }, "start");
  const best = answer?.[0];
  useCommands(
    "Colour",
    best
      ? [{ id: "start best", key: "b", says: "put the best start into the layer", run: () => apply(best) }]
      : [],
  );

  return (
    <section aria-labelledby="start">
      <h2 id="start" className="mb-1 text-xs text-soft">
        Start here
      </h2>
      {!wanted ? (
        <p className="text-xs text-soft">
          Once a colour is wanted, the best paints and mixes to start with stand here.
        </p>
      ) : !asks ? (
        <p className="text-xs text-soft">
          Choose a layer that coats the whole zone, such as a base coat, to see what it should be.
        </p>
      ) : (
        <>
          {fault && (
            <p role="alert" className="text-xs">
              ■ {fault}
            </p>
          )}
          <ol
            aria-label="Best to start with"
            aria-busy={!fresh}
            data-starts={answer?.length ?? 0}
            className="border-t border-line"
          >
            {answer?.map((s, i) => (
              <li key={s.paint.map((p) => `${p.materialId}${p.parts}`).join()}>
                <button
                  type="button"
                  data-start={i}
                  className="grid w-full grid-cols-[46px_minmax(0,1fr)_auto] items-center gap-2 border-b border-line py-1 text-left text-xs hover:bg-card"
                  onClick={() => apply(s)}
                >
                  <span className="grid grid-cols-3">
                    {(["recess", "field", "raised"] as const).map((p) => (
                      <Swatch key={p} colour={s[p]} name={p} className="h-7 w-full" />
                    ))}
                  </span>
                  <span className="min-w-0">
                    <span className="block truncate">{names(s, byId)}</span>
                    <span className="block truncate text-soft">
                      {s.paint.length > 1 && `${s.paint.map((p) => p.parts).join(" : ")} · `}
                      {s.coats} coat{s.coats === 1 ? "" : "s"}
                      {!s.hides && ", ground shows"}
                      {s.met && s.difference >= 1 && `, ${differs(s.difference)} off, as a hand varies`}
                    </span>
                  </span>
                  <span className="text-right">
                    <b>{s.met && s.difference >= 1 ? "met" : differs(s.difference)}</b>
                    <span className="sr-only"> apart: {s.words}</span>
                    {i === 0 && (
                      <kbd className="ml-1 rounded-[2px] border border-line px-1" aria-hidden="true">
                        b
                      </kbd>
                    )}
                  </span>
                </button>
              </li>
            ))}
          </ol>
          {answer?.length === 0 && (
            <p className="text-xs text-soft">Nothing in stock suits this layer. Look at the whole shelf.</p>
          )}
          <label className="mt-1 flex min-h-6 items-center gap-1.5 text-xs">
            <input type="checkbox" checked={all} onChange={(e) => setAll(e.target.checked)} />
            also what is out of stock
          </label>
        </>
      )}
    </section>
  );
}

const names = (s: Schema["StartDto"], byId: ColourProps["byId"]) =>
  s.paint.map((p) => byId.get(p.materialId)?.name ?? "?").join(" + ");
