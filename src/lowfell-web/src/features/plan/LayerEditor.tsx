import { useDeferredValue, useEffect, useRef, useState } from "react";
import { Choice, TextField } from "../../kit/Field";
import { Button } from "../../kit/Button";
import { Slide } from "../../kit/Slide";
import { heaviness } from "../../shared/words";
import { NumberBox } from "./NumberBox";
import { Optional } from "./Optional";
import { GoesOver } from "./GoesOver";
import { LayerParticulars } from "./LayerParticulars";
import { LayerRecipes } from "./LayerRecipes";
import { MaterialChoice } from "./MaterialChoice";
import { OffShelf } from "./OffShelf";
import { Ratio } from "./Ratio";
import type { Layer } from "./stack";
import type { ColumnProps } from "./column";

const regions = [
  "all",
  "raised",
  "recess",
  "upward",
  "lower third",
  "edges",
  "leading edges",
  "spots",
  "one in four",
  "recessed line",
  "around feet",
  "within rim",
] as const;

const tools = ["brush", "airbrush", "spray can", "sponge", "swab", "spatula", "fingers"] as const;

/** A chooser in which nothing was chosen yet. */
const NOTHING = { materialId: "", parts: 1 };

/** Edits one layer where it lies; colours and remarks follow every change. */
export function LayerEditor(props: ColumnProps & { layer: Layer }) {
  const { layer, materials, techniques, onChange, fault, layers } = props;
  const info = techniques.find((t) => t.technique === layer.technique);
  const box = useRef<HTMLDivElement>(null);
  // The field that takes the focus is there at once; the others follow in slices, so that no key has to wait for them.
  const whole = useDeferredValue(true, false);
  const set = (change: Partial<Layer>, field: string) => onChange({ ...layer, ...change }, field);
  const at = `layers[${layers.findIndex((l) => l.id === layer.id)}]`;
  const offShelf = (id: string) => (materials.some((m) => m.id === id) ? undefined : props.byId.get(id));
  const faultOf = (field: string) => fault?.find((f) => f.field.startsWith(`${at}.${field}`))?.message;

  useEffect(() => {
    box.current?.querySelector<HTMLElement>("input")?.focus({ preventScroll: true });
  }, [layer.id]);
  useEffect(() => {
    box.current?.closest("[data-editor]")?.scrollIntoView({ block: "nearest" });
  }, [layer.id, whole]);
  // One more component is an empty chooser, and nothing else, until something is chosen in it.
  const [more, setMore] = useState(false);
  const choices = [
    ...(layer.paint.length > 0 ? layer.paint : [NOTHING]),
    ...(more && layer.paint.length > 0 ? [NOTHING] : []),
  ];
  const choose = (materialId: string, i: number) => {
    if (i >= layer.paint.length) setMore(false);
    set(
      i < layer.paint.length
        ? { paint: layer.paint.map((x, k) => (k === i ? { ...x, materialId } : x)) }
        : { paint: [...layer.paint, { materialId, parts: 1 }] },
      `paint${i}`,
    );
  };
  const ahead = useRef(0);
  useEffect(() => {
    if (whole && ahead.current !== 0) stepFocus(box.current!, ahead.current);
    ahead.current = 0;
  }, [whole]);

  return (
    <div
      ref={box}
      className="grid grid-cols-2 gap-x-3 gap-y-2 lg:grid-cols-4"
      onKeyDown={(e) => {
        if (e.key === "Tab" && !whole) {
          // The field it leads to is still to come.
          e.preventDefault();
          ahead.current += e.shiftKey ? -1 : 1;
        }
        if (e.key !== "Escape") return;
        e.stopPropagation();
        props.onEdit(null);
        props.focusRow(layer.id);
      }}
    >
      <Choice
        label="Technique"
        value={layer.technique}
        options={techniques.map((t) => t.technique)}
        onChange={(technique) => {
          const next = techniques.find((t) => t.technique === technique);
          set({ technique, tool: next?.usualTool ?? layer.tool }, "technique");
        }}
      />
      {whole && (
        <>
          {props.sheet.surfaces.length > 1 && (
            <GoesOver layer={layer} sheet={props.sheet} info={info} onOver={props.onOver} />
          )}
          <div className="col-span-1 lg:col-span-2">
            {/* The first choice and the choice there is are one field: it must not change under the hands that type. */}
            {choices.map((p, i) => (
              <div key={i} data-component={i} className="mb-1 flex items-end gap-1.5">
                <div className="min-w-0 flex-1">
                  <MaterialChoice
                    label={i === 0 ? "Material" : `Component ${i + 1}`}
                    hideLabel={i > 0}
                    value={p.materialId}
                    materials={materials}
                    away={offShelf(p.materialId)}
                    info={info}
                    fault={
                      p.materialId || i === 0
                        ? faultOf(layer.paint.length > 0 ? `paint[${i}]` : "paint")
                        : undefined
                    }
                    onChange={(materialId) => choose(materialId, i)}
                  />
                </div>
                {layer.paint.length > 1 && p.materialId && (
                  <NumberBox
                    label={`Parts of component ${i + 1}`}
                    value={p.parts}
                    min={0.01}
                    max={1000}
                    onChange={(parts) =>
                      set({ paint: layer.paint.map((x, k) => (k === i ? { ...x, parts } : x)) }, `parts${i}`)
                    }
                  />
                )}
                {choices.length > 1 && (
                  <Button
                    aria-label={`Take component ${i + 1} out`}
                    onClick={() =>
                      p.materialId
                        ? set({ paint: layer.paint.filter((_, k) => k !== i) }, "components")
                        : setMore(false)
                    }
                  >
                    ✕
                  </Button>
                )}
              </div>
            ))}
            {[...layer.paint.map((p) => p.materialId), layer.dilution?.thinnerId].map((id) => {
              const away = id && offShelf(id);
              return (
                away && (
                  <OffShelf
                    key={away.id}
                    material={away}
                    materials={materials}
                    onTake={(to) => set(instead(layer, away.id, to), "instead")}
                  />
                )
              );
            })}
            {layer.paint.length > 0 && layer.paint.length < 8 && !more && (
              <button
                type="button"
                className="min-h-6 text-xs underline"
                onClick={() => {
                  setMore(true);
                  requestAnimationFrame(() =>
                    [...(box.current?.querySelectorAll<HTMLElement>("[data-component]") ?? [])]
                      .at(-1)
                      ?.querySelector("input")
                      ?.focus(),
                  );
                }}
              >
                Mix in another
              </button>
            )}
            <LayerRecipes
              layer={layer}
              workshopId={props.workshopId}
              onTake={(paint, dilution) => set({ paint, dilution }, "recipe")}
            />
          </div>
          <Ratio
            layer={layer}
            workshopId={props.workshopId}
            materials={materials}
            onChange={(dilution, paint) => set({ dilution, paint }, "dilution")}
          />
          <NumberBox
            wide
            label="Coats"
            value={layer.coats}
            min={1}
            max={20}
            whole
            fault={faultOf("coats")}
            onChange={(coats) => set({ coats }, "coats")}
          />
          <Slide
            label="How heavily"
            says={heaviness(layer.strength)}
            valueText={heaviness(layer.strength)}
            value={layer.strength}
            min={0}
            max={2}
            step={0.1}
            onChange={(strength) => set({ strength: Math.round(strength * 10) / 10 }, "strength")}
          />
          <Choice
            label="Where"
            value={layer.region}
            options={regions}
            onChange={(region) => set({ region }, "region")}
          />
          <Choice
            label="Tool"
            value={layer.tool}
            options={tools}
            onChange={(tool) => set({ tool }, "tool")}
          />
          <Optional
            key={layer.waitMinutes ?? "open"}
            label="Wait after"
            unit="min"
            value={layer.waitMinutes}
            most={43_200}
            placeholder="as long as it takes"
            onSet={(minutes) => set({ waitMinutes: minutes === null ? null : Math.round(minutes) }, "wait")}
          />
          <LayerParticulars {...props} set={set} faultOf={faultOf} />
          <Choice
            label="Drying"
            value={layer.drying}
            options={["air", "hot air"] as const}
            onChange={(drying) => set({ drying }, "drying")}
          />
          <div className="col-span-2">
            <TextField
              label="Note"
              maxLength={500}
              value={layer.note}
              fault={faultOf("note")}
              onChange={(e) => set({ note: e.target.value }, "note")}
            />
          </div>
        </>
      )}
    </div>
  );
}

/** A layer with one material in the place of another. */
const instead = (layer: Layer, from: string, to: string): Partial<Layer> => ({
  paint: layer.paint.map((p) => (p.materialId === from ? { ...p, materialId: to } : p)),
  dilution:
    layer.dilution?.thinnerId === from ? { ...layer.dilution, thinnerId: to } : (layer.dilution ?? null),
});

/** Goes on, or back, by so many fields from the one that has the focus. */
function stepFocus(box: HTMLElement, by: number) {
  const fields = [...box.querySelectorAll<HTMLElement>("input, button, [tabindex]")].filter(
    (f) => f.tabIndex >= 0 && !f.matches(":disabled"),
  );
  const at = fields.findIndex((f) => f === document.activeElement);
  fields[Math.min(fields.length - 1, Math.max(0, at + by))]?.focus();
}
