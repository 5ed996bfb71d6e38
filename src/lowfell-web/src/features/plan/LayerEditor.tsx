import { Slider } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { Choice, TextField } from "../../kit/Field";
import { Button } from "../../kit/Button";
import { Varied } from "./Varied";
import { MaterialChoice } from "./MaterialChoice";
import { Ratio } from "./Ratio";
import type { Layer } from "./stack";
import type { ColumnProps } from "./column";

const regions = ["all", "raised", "recess", "upward", "lower third", "edges", "spots", "within rim"] as const;
const tools = ["brush", "airbrush", "spray can", "sponge", "swab", "spatula", "fingers"] as const;

/** Edits one layer where it lies; colours and remarks follow every change. */
export function LayerEditor(props: ColumnProps & { layer: Layer }) {
  const { layer, materials, techniques, onChange, fault, layers } = props;
  const info = techniques.find((t) => t.technique === layer.technique);
  const box = useRef<HTMLDivElement>(null);
  const set = (change: Partial<Layer>, field: string) => onChange({ ...layer, ...change }, field);
  const at = `layers[${layers.findIndex((l) => l.id === layer.id)}]`;
  const faultOf = (field: string) => fault?.find((f) => f.field.startsWith(`${at}.${field}`))?.message;

  useEffect(() => {
    box.current?.querySelector<HTMLElement>("input")?.focus();
    box.current?.closest("[data-editor]")?.scrollIntoView({ block: "nearest" });
  }, [layer.id]);

  return (
    <div
      ref={box}
      className="grid grid-cols-2 gap-x-3 gap-y-2 lg:grid-cols-4"
      onKeyDown={(e) => {
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
      <div className="col-span-1 lg:col-span-2">
        {/* The first choice and the choice there is are one field: it must not change under the hands that type. */}
        {(layer.paint.length > 0 ? layer.paint : [{ materialId: "", parts: 1 }]).map((p, i) => (
          <div key={i} className="mb-1 flex items-end gap-1.5">
            <div className="min-w-0 flex-1">
              <MaterialChoice
                label={i === 0 ? "Material" : `Component ${i + 1}`}
                hideLabel={i > 0}
                value={p.materialId}
                materials={materials}
                info={info}
                fault={faultOf(layer.paint.length > 0 ? `paint[${i}]` : "paint")}
                onChange={(materialId) =>
                  set(
                    layer.paint.length > 0
                      ? { paint: layer.paint.map((x, k) => (k === i ? { ...x, materialId } : x)) }
                      : { paint: [{ materialId, parts: 1 }] },
                    `paint${i}`,
                  )
                }
              />
            </div>
            {layer.paint.length > 1 && (
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
            {layer.paint.length > 1 && (
              <Button
                aria-label={`Take component ${i + 1} out`}
                onClick={() => set({ paint: layer.paint.filter((_, k) => k !== i) }, "components")}
              >
                ✕
              </Button>
            )}
          </div>
        ))}
        {layer.paint.length > 0 && layer.paint.length < 8 && (
          <button
            type="button"
            className="min-h-6 text-xs underline"
            onClick={() => {
              const other = materials.find(
                (m) => info?.suits.includes(m.kind) && !layer.paint.some((p) => p.materialId === m.id),
              );
              if (other) set({ paint: [...layer.paint, { materialId: other.id, parts: 1 }] }, "components");
            }}
          >
            Mix in another
          </button>
        )}
      </div>
      <Ratio
        layer={layer}
        workshopId={props.workshopId}
        materials={materials}
        onChange={(dilution) => set({ dilution }, "dilution")}
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
      <div>
        <span id={`strength-${layer.id}`} className="block text-xs text-soft">
          How heavily: {layer.strength}
        </span>
        <Slider.Root
          className="relative mt-1.5 flex h-5 w-full touch-none items-center"
          min={0}
          max={2}
          step={0.1}
          value={[Math.min(2, layer.strength)]}
          onValueChange={([v]) => set({ strength: Math.round((v ?? 1) * 10) / 10 }, "strength")}
        >
          <Slider.Track className="relative h-0.5 grow bg-line">
            <Slider.Range className="absolute h-full bg-tide" />
          </Slider.Track>
          <Slider.Thumb
            aria-labelledby={`strength-${layer.id}`}
            className="block size-4 rounded-full bg-tide"
          />
        </Slider.Root>
      </div>
      <Choice
        label="Where"
        value={layer.region}
        options={regions}
        onChange={(region) => set({ region }, "region")}
      />
      <Choice label="Tool" value={layer.tool} options={tools} onChange={(tool) => set({ tool }, "tool")} />
      <Wait
        key={layer.waitMinutes ?? "open"}
        layer={layer}
        onChange={(waitMinutes) => set({ waitMinutes }, "wait")}
      />
      {marks.has(layer.technique) && (
        <TextField
          key={`mark ${layer.markMm}`}
          label="Marks, mm wide"
          inputMode="decimal"
          placeholder="as usual"
          defaultValue={layer.markMm ?? ""}
          fault={faultOf("markMm")}
          onBlur={(e) => {
            const mm = Number(e.target.value.replace(",", "."));
            if (e.target.value.trim() === "") set({ markMm: null }, "mark");
            else if (mm > 0 && mm <= 200) set({ markMm: Math.round(mm * 100) / 100 }, "mark");
          }}
        />
      )}
      {layer.technique === "patch" && (
        <Varied
          zoneId={props.sheet.zone.id}
          seed={layer.variationSeed ?? null}
          onChange={(variationSeed) => set({ variationSeed }, "variation")}
        />
      )}
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
    </div>
  );
}

/** Techniques that leave marks one could measure. */
const marks = new Set<Layer["technique"]>([
  "streak",
  "painted chip",
  "scratch",
  "speckle",
  "patch",
  "edge line",
  "stipple",
]);

function Wait({ layer, onChange }: { layer: Layer; onChange: (minutes: number | null) => void }) {
  const [text, setText] = useState(layer.waitMinutes === null ? "" : String(layer.waitMinutes));
  const wrong = text.trim() !== "" && !/^\d{1,5}$/.test(text.trim());
  return (
    <TextField
      label="Wait after, minutes"
      inputMode="numeric"
      placeholder="as long as it takes"
      value={text}
      fault={wrong ? "Whole minutes, or empty." : undefined}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => !wrong && onChange(text.trim() === "" ? null : Math.min(43200, Number(text)))}
      onKeyDown={(e) => {
        if (e.key === "Enter" && !wrong) onChange(text.trim() === "" ? null : Math.min(43200, Number(text)));
      }}
    />
  );
}

function NumberBox(props: {
  label: string;
  value: number;
  min: number;
  max: number;
  whole?: boolean;
  wide?: boolean;
  fault?: string;
  onChange: (n: number) => void;
}) {
  const [text, setText] = useState(String(props.value));
  const [seen, setSeen] = useState(props.value);
  if (seen !== props.value) {
    setSeen(props.value);
    setText(String(props.value));
  }
  const n = Number(text.replace(",", "."));
  const good =
    text.trim() !== "" &&
    Number.isFinite(n) &&
    n >= props.min &&
    n <= props.max &&
    (!props.whole || Number.isInteger(n));
  return (
    <div className={props.wide ? "" : "w-16 shrink-0"}>
      <TextField
        label={props.label}
        hideLabel={!props.wide}
        inputMode="decimal"
        value={text}
        fault={good ? props.fault : `From ${props.min} to ${props.max}.`}
        onChange={(e) => {
          setText(e.target.value);
          const v = Number(e.target.value.replace(",", "."));
          if (
            e.target.value.trim() !== "" &&
            v >= props.min &&
            v <= props.max &&
            (!props.whole || Number.isInteger(v))
          ) {
            setSeen(v);
            props.onChange(v);
          }
        }}
      />
    </div>
  );
}
