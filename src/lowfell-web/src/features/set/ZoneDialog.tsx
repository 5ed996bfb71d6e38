import { queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useController, useWatch } from "react-hook-form";
import { api, take, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice } from "../../kit/Field";
import { Chosen, Restored, Ticked, Typed } from "../../kit/form/fields";
import { readFigure, sayFigure, type Unit } from "../../kit/form/figures";
import { useForm } from "../../kit/form/useForm";
import { treatmentsQuery } from "../../shared/designs/presets";
import { handlings, reliefs, sheens, surfaces } from "../../shared/choices";
import { changeOf, noChange, schema, sizesOf, typedOf } from "./zone";

const read = (text: string, unit: Unit) => {
  const found = readFigure(text, unit);
  return found && "value" in found ? found.value : null;
};

/** What stands in for what was not measured, by the surface as it is typed. */
const guessQuery = (setId: string, typed: Schema["GuessIn"]) =>
  queryOptions({
    queryKey: ["guess", setId, typed],
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      take(api.POST("/api/sets/{setId}/zone-guess", { params: { path: { setId } }, body: typed, signal })),
  });

/** Without a server there is no guess; what stands in the fields stays. */
const noGuess = () => undefined;

/** Everything about a zone but its layers; a new one is made with it. */
export default function ZoneDialog(props: {
  set: Schema["SetSheet"];
  design: Schema["DesignSheet"];
  zone: Schema["ZoneFacts"] | null;
  onClose: () => void;
}) {
  const { set, design, zone, onClose } = props;
  const [send] = useWrite("plan");
  const queries = useQueryClient();
  const { data: treatments } = useQuery(treatmentsQuery(set.workshopId));
  const [treatment, setTreatment] = useState("");
  const begin = typedOf(zone);
  const { form, submit, busy, refused, restored, startOver } = useForm({
    draft: `zone ${zone?.id ?? `new ${design.id}`}`,
    schema,
    ...(zone && { version: zone.version }),
    begin,
    send: async (values, from) => {
      await send((headers) =>
        zone
          ? api.PUT("/api/zones/{zoneId}", {
              headers,
              params: { path: { zoneId: zone.id } },
              body: { ...changeOf(schema.parse(begin), values), version: from },
            })
          : api.POST("/api/designs/{designId}/zones", {
              headers,
              params: { path: { designId: design.id } },
              body: {
                ...noChange,
                ...values,
                handling: values.handling || null,
                targetSheen: values.targetSheen || null,
                treatmentId: treatment || null,
                version: null,
              },
            }),
      );
      onClose();
    },
  });
  const { control } = form;
  const [surface, area, length, height, relief] = useWatch({
    control,
    name: ["surface", "areaCm2", "surfaceLengthMm", "surfaceHeightMm", "relief"],
  });
  const sizes = sizesOf[surface];
  const typed = {
    areaCm2: read(area, "cm²"),
    relief,
    surface,
    surfaceLengthMm: read(length, "mm"),
    surfaceHeightMm: read(height, "mm"),
  };
  const guessed = useQuery({ ...guessQuery(set.id, typed), placeholderData: (was) => was });
  const guess = guessed.data;
  const others = design.zones.filter((z) => !z.putAwayAt && z.id !== zone?.id);
  const mm = (n: number | undefined) => (n ? sayFigure(n, "mm") : "");
  const offer = (name: "jointMm" | "edgeMm", n: number | undefined) => (
    <>
      by area and surface {mm(n) || "none"}{" "}
      <button
        type="button"
        className="min-h-6 underline"
        onClick={() => form.setValue(name, sayFigure(n ?? 0, "mm"), { shouldDirty: true })}
      >
        take it
      </button>
    </>
  );
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={zone ? zone.name : `A new zone of ${design.name}`}
      says="Figures are for one piece. What is left empty is taken as usual."
    >
      <form
        noValidate
        className="grid grid-cols-2 items-start gap-3 sm:grid-cols-6"
        onSubmit={(e) => void submit(e)}
      >
        <div className="col-span-2 sm:col-span-3">
          <Restored shown={restored} onOver={() => startOver()} />
          <Typed control={control} name="name" label="Name" />
        </div>
        <div className="sm:col-span-1">
          <Typed control={control} name="areaCm2" label="Area" inputMode="decimal" />
        </div>
        <div className="sm:col-span-2">
          <Chosen
            control={control}
            name="relief"
            label="Relief"
            options={reliefs}
            onChosen={(to) =>
              void queries.fetchQuery(guessQuery(set.id, { ...typed, relief: to })).then((usual) => {
                for (const name of ["raised", "field", "recess"] as const)
                  form.setValue(name, sayFigure(Math.round(usual[name] * 1000) / 10, "%"));
              }, noGuess)
            }
          />
        </div>
        {!zone && (
          <div className="col-span-2 sm:col-span-6">
            <Choice
              label="Layers"
              value={treatment}
              options={[
                { value: "", text: "none yet" },
                ...(treatments ?? []).map((t) => ({ value: t.id, text: `as ${t.name} (shared)` })),
              ]}
              onChange={setTreatment}
            />
          </div>
        )}
        <fieldset className="col-span-2 grid grid-cols-2 gap-3 border-t border-line pt-2 sm:col-span-6 sm:grid-cols-6">
          <legend className="pr-2 text-xs text-soft">What the surface is made of</legend>
          <div className="sm:col-span-2">
            <Chosen control={control} name="surface" label="Surface" options={surfaces} />
          </div>
          {sizes && (
            <Typed
              control={control}
              name="surfaceLengthMm"
              label={sizes.length}
              placeholder={mm(guess?.surfaceLengthMm)}
              inputMode="decimal"
            />
          )}
          {sizes?.height && (
            <Typed
              control={control}
              name="surfaceHeightMm"
              label={sizes.height}
              placeholder={mm(guess?.surfaceHeightMm)}
              inputMode="decimal"
            />
          )}
          {sizes?.rivets && (
            <Typed
              control={control}
              name="rivetMm"
              label="From rivet to rivet"
              placeholder="no rivets"
              inputMode="decimal"
            />
          )}
          {sizes?.across && (
            <div className="self-end sm:col-span-2">
              <Ticked control={control} name="across" label={sizes.across} />
            </div>
          )}
        </fieldset>
        <div className="sm:col-span-2">
          <Typed
            control={control}
            name="jointMm"
            label="Joints in all"
            placeholder={mm(guess?.jointMm)}
            inputMode="decimal"
            hint={offer("jointMm", guess?.jointMm)}
          />
        </div>
        <div className="sm:col-span-2">
          <Typed
            control={control}
            name="edgeMm"
            label="Edges in all"
            placeholder={mm(guess?.edgeMm)}
            inputMode="decimal"
            hint={offer("edgeMm", guess?.edgeMm)}
          />
        </div>
        <div className="sm:col-span-1">
          <Typed control={control} name="smallestDetailMm" label="Smallest detail" inputMode="decimal" />
        </div>
        <div className="sm:col-span-1">
          <Typed
            control={control}
            name="faceWidthMm"
            label="Face, wide"
            placeholder="by its edges"
            inputMode="decimal"
          />
        </div>
        <fieldset className="col-span-2 grid grid-cols-3 gap-2 sm:col-span-3">
          <legend className="text-xs text-soft">Faces</legend>
          <Typed control={control} name="up" label="up" inputMode="decimal" />
          <Typed control={control} name="side" label="sideways" inputMode="decimal" />
          <Typed control={control} name="down" label="down" inputMode="decimal" />
        </fieldset>
        <fieldset className="col-span-2 grid grid-cols-3 gap-2 sm:col-span-3">
          <legend className="text-xs text-soft">Of its area, guessed from a {relief} relief</legend>
          <Typed control={control} name="raised" label="raised" inputMode="decimal" />
          <Typed control={control} name="field" label="field" inputMode="decimal" />
          <Typed control={control} name="recess" label="recess" inputMode="decimal" />
        </fieldset>
        <div className="sm:col-span-3">
          <Chosen
            control={control}
            name="handling"
            label="Handling"
            options={[{ value: "", text: `as the set, ${set.handling}` }, ...handlings]}
          />
        </div>
        <div className="sm:col-span-3">
          <Chosen
            control={control}
            name="targetSheen"
            label="Sheen"
            options={[{ value: "", text: `as the set, ${set.targetSheen}` }, ...sheens]}
          />
        </div>
        <div className="col-span-2 sm:col-span-6">
          <Ticked control={control} name="cutEdge" label="It is itself a cut edge of board or plaster" />
          <Ticked
            control={control}
            name="beforeAssembly"
            label="A brush only reaches it before the piece is assembled"
          />
        </div>
        {others.length > 0 && <Touches control={control} zones={others} />}
        {refused && (
          <Alert title="Not stored." className="col-span-2 sm:col-span-6">
            {refused.message} What you typed is kept.
          </Alert>
        )}
        <div className="col-span-2 flex gap-2 sm:col-span-6">
          <Button type="submit" tone="go" disabled={busy}>
            {zone ? "Store it" : "Add the zone"}
          </Button>
          <Button onClick={onClose}>{zone ? "Leave as it is" : "Cancel"}</Button>
        </div>
      </form>
    </Dialog>
  );
}

/** The zones it touches: masks, bleeding colour and dust go across. */
function Touches({
  control,
  zones,
}: {
  control: ReturnType<typeof useForm<import("./zone").Typed, import("./zone").Values>>["form"]["control"];
  zones: Schema["ZoneFacts"][];
}) {
  const {
    field: { value, onChange, ref },
  } = useController({ control, name: "touches" });
  return (
    <fieldset className="col-span-2 sm:col-span-6">
      <legend className="text-xs text-soft">It touches</legend>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {zones.map((z, i) => (
          <label key={z.id} className="flex min-h-6 items-center gap-1.5 text-xs">
            <input
              type="checkbox"
              ref={i === 0 ? ref : undefined}
              checked={value.includes(z.id)}
              onChange={(e) =>
                onChange((e.target.checked ? [...value, z.id] : value.filter((v) => v !== z.id)).sort())
              }
            />
            {z.name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
