import { useState } from "react";
import { Button } from "../../../kit/Button";
import { Slide } from "../../../kit/Slide";
import { capital, paintWords } from "../layerWords";
import type { Layer } from "../stack";
import type { ColourProps } from "./props";
import { CompareDialog } from "./CompareDialog";
import { DidItMatch } from "./DidItMatch";
import { Hands } from "./Hands";
import { paintShare, partsOf } from "./share";
import { StartHere } from "./StartHere";
import { Target } from "./Target";
import { differs, heaviness } from "../../../shared/words";

/** Where the zone should end, where it does end, and what to turn to bring the two together. */
export function ColourPanel(props: ColourProps) {
  const { layer, layers } = props;
  const [comparing, setComparing] = useState(false);
  const said = layer && props.reading.layers.find((l) => l.id === layer.id);
  const number = layer ? layers.indexOf(layer) + 1 : 0;
  return (
    <div className="space-y-4">
      <Target
        sheet={props.sheet}
        target={props.reading.target ?? null}
        ends={props.reading.layers.at(-1)}
        onReread={props.onReread}
      />
      {layer && (
        <section aria-labelledby="turn">
          <h2 id="turn" className="mb-1 text-xs text-soft">
            Layer {number}, {layer.technique} of {paintWords(layer, props.byId)}
          </h2>
          <Turn {...props} layer={layer} />
          <Covers {...props} layer={layer} />
          {said && <Hands said={said} layers={layers} />}
        </section>
      )}
      {layer && <StartHere {...props} layer={layer} />}
      {layer && (
        <DidItMatch
          key={layer.id}
          sheet={props.sheet}
          workshopId={props.workshopId}
          layerId={layer.id}
          materialId={layer.paint[0]?.materialId ?? ""}
          byId={props.byId}
          now={props.now}
          onReread={props.onReread}
        />
      )}
      <Button className="w-full !whitespace-normal" aria-haspopup="dialog" onClick={() => setComparing(true)}>
        Compare with another treatment, pot or dilution
      </Button>
      {comparing && <CompareDialog {...props} onClose={() => setComparing(false)} />}
    </div>
  );
}

/** Sliders that the column, the section and the remarks follow while they move. */
function Turn({ layer, byId, materials, onTurn }: ColourProps & { layer: Layer }) {
  const main = byId.get(layer.paint[0]?.materialId ?? "");
  const thinner =
    layer.dilution?.thinnerId ??
    materials.find((m) => m.kind === "thinner" && m.thinners.some((f) => main?.thinners.includes(f)))?.id;
  const share = Math.round(paintShare(layer.dilution));
  return (
    <>
      {layer.paint.length > 0 && thinner && main?.kind !== "thinner" && (
        <Slide
          label="Dilution"
          says={
            layer.dilution
              ? `${layer.dilution.paint} : ${layer.dilution.thinner}, ${share} % paint`
              : "neat, 100 % paint"
          }
          valueText={`${share} percent paint`}
          value={share}
          min={10}
          max={100}
          step={1}
          onChange={(percent) => {
            const parts = partsOf(percent);
            onTurn(layer.id, { dilution: parts && { thinnerId: thinner, ...parts } });
          }}
        />
      )}
      <Slide
        label="Coats"
        says={layer.coats}
        value={layer.coats}
        min={1}
        max={8}
        step={1}
        onChange={(coats) => onTurn(layer.id, { coats })}
      />
      <Slide
        label="How heavily"
        says={heaviness(layer.strength)}
        valueText={heaviness(layer.strength)}
        value={layer.strength}
        min={0}
        max={2}
        step={0.05}
        onChange={(strength) => onTurn(layer.id, { strength: Math.round(strength * 100) / 100 })}
      />
    </>
  );
}

/** What this layer does to what is below it. */
function Covers({ layer, reading }: ColourProps & { layer: Layer }) {
  const said = reading.layers.find((l) => l.id === layer.id);
  if (!said) return null;
  const wet = said.wetField !== said.field;
  return (
    <dl className="mt-1 text-xs">
      {(["recess", "field", "raised"] as const).map((p) => (
        <Line key={p} name={`Changes the ${p}`}>
          {differs(said.change[p])}
        </Line>
      ))}
      {said.coatsToHide != null && (
        <Line name="Hides what is below in">
          {said.coatsToHide} coat{said.coatsToHide === 1 ? "" : "s"}
          {said.hidingEstimated && " (estimate)"}
        </Line>
      )}
      {said.lightLeft && (
        <Line name={`Light still seen after ${said.lightLeft.length > 1 ? "each coat" : "it"}`}>
          {said.lightLeft.map((s) => `${Math.round(s * 100)} %`).join(" · ")}
        </Line>
      )}
      {wet && (
        <Line name="Wet look, then dry look">
          <svg
            width="64"
            height="16"
            viewBox="0 0 64 16"
            role="img"
            aria-label={`wet ${said.wetField}, dry ${said.field}`}
          >
            <rect width="32" height="16" fill={said.wetField} />
            <rect x="32" width="32" height="16" fill={said.field} />
          </svg>
        </Line>
      )}
    </dl>
  );
}

function Line({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="flex items-center justify-between gap-3 border-t border-line py-1">
      <dt className="text-soft">{capital(name)}</dt>
      <dd className="text-right font-semibold whitespace-nowrap">{children}</dd>
    </div>
  );
}
