import { useState } from "react";
import { useFieldArray, useWatch } from "react-hook-form";
import type { Schema } from "../../api/client";
import { Piece, type Measured } from "../../drawing/Piece";
import { Button } from "../../kit/Button";
import { Chosen, Typed, type FormControl } from "../../kit/form/fields";
import { anotherZone, BARE, isGuessed, reliefs, USUAL, type DesignDraft } from "./design";

const measuredBy: Partial<Record<string, Measured>> = { areaCm2: "area", edgeMm: "edges", jointMm: "joints" };

/** The zones of a design, with the piece drawn beside them: the zone in hand is tinted, and what is being measured of it is drawn. */
export function ZoneFields(props: {
  control: FormControl<{ design: DesignDraft }>;
  treatments: readonly Schema["TreatmentEntry"][];
}) {
  const { control, treatments } = props;
  const { fields, append, remove } = useFieldArray({ control, name: "design.zones" });
  const design = useWatch({ control, name: "design" });
  const [at, setAt] = useState<{ zone: number; measured: Measured }>({ zone: 0, measured: "area" });
  const layers = [
    { value: USUAL, text: "The usual for it, by the house rules" },
    { value: BARE, text: "None yet" },
    ...treatments.map((t) => ({ value: t.id, text: `As ${t.name} (shared)` })),
  ];
  return (
    <div className="grid gap-5 md:grid-cols-[220px_minmax(0,1fr)]">
      <figure className="md:sticky md:top-4 md:self-start">
        <Piece
          kind={design.kind}
          part={design.zones[at.zone]?.part}
          measured={at.measured}
          className="w-full max-w-[260px]"
        />
        <figcaption className="text-xs text-soft">
          {says[at.measured]}{" "}
          <b className="text-ink">{design.zones[at.zone]?.name || `zone ${at.zone + 1}`}</b>
          {at.measured !== "area" && ", all of them together"}.
        </figcaption>
      </figure>
      <fieldset className="min-w-0">
        <legend className="sr-only">Zones: surfaces that get layers of their own</legend>
        <ol className="grid gap-3">
          {fields.map((f, i) => {
            const zone = design.zones[i] ?? f;
            const field = (name: "areaCm2" | "edgeMm" | "jointMm" | "up") =>
              ({
                control,
                name: `design.zones.${i}.${name}`,
                inputMode: "decimal",
                hint: isGuessed(zone, name) ? "a guess" : undefined,
              }) as const;
            const of = fields.length > 1 ? ` of zone ${i + 1}` : "";
            return (
              <li
                key={f.id}
                data-zone={i}
                className={`grid grid-cols-2 gap-x-2 gap-y-1.5 border-l-[3px] py-1 pl-3 sm:grid-cols-4 ${at.zone === i ? "border-tide" : "border-line"}`}
                onFocus={(e) => {
                  const name = e.target.getAttribute("name")?.split(".").at(-1) ?? "";
                  setAt({ zone: i, measured: measuredBy[name] ?? "area" });
                }}
              >
                <div className="col-span-2 flex items-end gap-2 sm:col-span-4">
                  <div className="min-w-0 flex-1">
                    <Typed control={control} name={`design.zones.${i}.name`} label={`Zone ${i + 1}`} />
                  </div>
                  <Button
                    aria-label={`Take out zone ${i + 1}`}
                    disabled={fields.length === 1}
                    onClick={() => remove(i)}
                  >
                    ✕
                  </Button>
                </div>
                <Typed {...field("areaCm2")} label={`Area${of}`} placeholder="cm²" />
                <Typed {...field("edgeMm")} label={`Edges${of}`} placeholder="mm" />
                <Typed {...field("jointMm")} label={`Joints${of}`} placeholder="mm" />
                <Typed {...field("up")} label={`Faces up${of}`} placeholder="%" />
                <Chosen
                  control={control}
                  name={`design.zones.${i}.relief`}
                  label={`Relief${of}`}
                  options={reliefs}
                />
                <div className="sm:col-span-3">
                  <Chosen
                    control={control}
                    name={`design.zones.${i}.layers`}
                    label={`Layers to begin with${of}`}
                    options={layers}
                  />
                </div>
              </li>
            );
          })}
        </ol>
        <Button className="mt-3" onClick={() => append(anotherZone(design))}>
          Another zone
        </Button>
      </fieldset>
    </div>
  );
}

const says: Record<Measured, string> = {
  area: "The surface of",
  edges: "The edges of",
  joints: "The joints in",
};
