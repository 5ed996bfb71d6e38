import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useWatch } from "react-hook-form";
import { useNavigate } from "react-router";
import { api, Refused, type Schema } from "../../api/client";
import { write } from "../../api/writes";
import { Piece } from "../../drawing/Piece";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Chosen, Restored, Typed } from "../../kit/form/fields";
import { useForm } from "../../kit/form/useForm";
import { BARE, changeKind, USUAL, type DesignDraft } from "../../shared/designs/design";
import { DesignFields } from "../../shared/designs/DesignFields";
import { Kinds } from "../../shared/designs/Kinds";
import { treatmentsQuery } from "../../shared/designs/presets";
import { ZoneFields } from "../../shared/designs/ZoneFields";
import {
  begin,
  fieldsOf,
  handlings,
  schema,
  sheens,
  stepOf,
  steps,
  toNewSet,
  type Typed as SetDraft,
} from "./set";

/** The five steps. Each is checked before the next; what is typed is kept, whichever way one leaves. */
export function Steps(props: {
  workshop?: Schema["WorkshopEntry"];
  presets: Schema["DesignPreset"][];
  first: boolean;
}) {
  const { workshop, presets } = props;
  const [step, setStep] = useState(0);
  const { data: treatments } = useQuery({ ...treatmentsQuery(workshop?.id ?? ""), enabled: !!workshop });
  const typed = useRef<Record<string, DesignDraft>>({});
  const queries = useQueryClient();
  const navigate = useNavigate();
  const heading = useRef<HTMLHeadingElement>(null);
  const { form, submit, busy, refused, restored, startOver } = useForm({
    draft: `set ${workshop?.id ?? "new"}`,
    schema,
    begin: begin(workshop, presets[0]!),
    send: async (values) => {
      try {
        const made = await write((headers) =>
          api.POST("/api/plan/sets", { headers, body: toNewSet(values, workshop?.id ?? null) }),
        );
        await queries.invalidateQueries();
        void navigate(`/plan/${made.setId}/${made.firstZoneId}`);
      } catch (error) {
        if (error instanceof Refused) setStep(stepOf(error.refusal.errors[0]?.field ?? ""));
        throw error;
      }
    },
  });
  const { control } = form;
  const values = useWatch({ control }) as SetDraft;

  const moved = useRef(false);
  useEffect(() => {
    if (moved.current) heading.current?.focus();
    moved.current = true;
  }, [step]);
  /** Goes to a step, unless something before it has to be put right first. */
  const go = async (to: number) => {
    for (let s = step; s < to; s++)
      if (!(await form.trigger(fieldsOf[s], { shouldFocus: true }))) {
        setStep(s);
        return;
      }
    setStep(to);
  };

  return (
    <div className="h-full overflow-y-auto">
      <form
        className="mx-auto max-w-4xl px-4 py-6 sm:px-8 sm:py-8"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (step < steps.length - 1) void go(step + 1);
          else void submit();
        }}
      >
        <h1 className="text-xl font-semibold">{props.first ? "Your first set" : "A new set"}</h1>
        <p className="mt-1 text-soft">
          Five short steps. What you type is kept, and nothing is made before the last.
        </p>
        <Restored
          shown={restored}
          onOver={() => {
            startOver();
            setStep(0);
          }}
        />
        <ol className="mt-5 flex gap-1" aria-label="Steps">
          {steps.map((s, i) => (
            <li key={s} className="flex-1">
              <button
                type="button"
                aria-current={i === step ? "step" : undefined}
                onClick={() => void go(i)}
                className={`w-full border-t-[3px] pt-1 text-left text-xs ${i <= step ? "border-tide" : "border-line"} ${i === step ? "font-bold" : "text-soft"}`}
              >
                {i + 1} <span className={i === step ? "" : "max-sm:sr-only"}>{s}</span>
              </button>
            </li>
          ))}
        </ol>
        <h2 ref={heading} tabIndex={-1} className="mt-7 mb-3 text-lg font-semibold outline-none">
          {steps[step]}
        </h2>
        {refused && (
          <Alert title="Not made yet." className="mb-3 max-w-2xl">
            {refused.message} What you typed is kept.
          </Alert>
        )}
        {step === 0 && (
          <div className="grid max-w-xl gap-3 sm:grid-cols-2">
            {!workshop && <Typed control={control} name="workshop" label="Name of the workshop" />}
            <Typed control={control} name="name" label="Name of the set" />
            <Typed control={control} name="scale" label="Scale" placeholder="1:56" />
            <Typed
              control={control}
              name="tableMetres"
              label="Seen from"
              hint="from the players’ eyes to the table"
            />
            <Chosen control={control} name="handling" label="Handling" options={handlings} />
            <Chosen control={control} name="targetSheen" label="Final sheen" options={sheens} />
          </div>
        )}
        {step === 1 && (
          <Kinds
            presets={presets}
            chosen={values.design.kind}
            onChoose={(to) => {
              const now = form.getValues("design");
              typed.current[now.kind] = now;
              form.setValue("design", changeKind(now, presets, to, typed.current));
            }}
          />
        )}
        {step === 2 && (
          <div className="max-w-2xl">
            <DesignFields control={control} at="design." />
          </div>
        )}
        {step === 3 && (
          <>
            <p className="mb-3 text-soft">
              All figures are for one piece. A guess within a quarter is good enough to begin with; you can
              measure later.
            </p>
            <ZoneFields control={control as never} treatments={treatments ?? []} />
          </>
        )}
        {step === 4 && <Made values={values} treatments={treatments ?? []} />}
        <div className="mt-8 flex gap-2">
          {step > 0 && <Button onClick={() => setStep(step - 1)}>Back</Button>}
          <Button type="submit" tone="go" disabled={busy}>
            {step < steps.length - 1 ? "Next" : busy ? "Making it…" : "Make the set"}
          </Button>
        </div>
      </form>
    </div>
  );
}

/** What will be made, read back before it is. */
function Made({ values, treatments }: { values: SetDraft; treatments: Schema["TreatmentEntry"][] }) {
  const { design } = values;
  const layers = (word: string) =>
    word === USUAL
      ? "the usual layers for it"
      : word === BARE
        ? "no layers yet"
        : `shares ${treatments.find((t) => t.id === word)?.name ?? "a treatment"}`;
  return (
    <div className="flex max-w-2xl gap-5">
      <Piece kind={design.kind} className="w-40 shrink-0 max-sm:hidden" />
      <div>
        <p>
          <b>{values.name}</b>, {values.scale}, seen from {values.tableMetres}: {design.pieces} ×{" "}
          {design.name} in {design.substrate}.
        </p>
        <ul className="mt-2">
          {design.zones.map((z, i) => (
            <li key={i} className="border-t border-line py-1">
              <b>{z.name}</b>, {z.areaCm2}, {z.relief === "smooth" ? "smooth" : `${z.relief} relief`}:{" "}
              {layers(z.layers)}
            </li>
          ))}
        </ul>
        <p className="mt-3 text-xs text-soft">
          The usual layers are primer, ground colour, shade, dry brush and varnish in the order of the house
          rules, from a dozen plain stand-in materials. Change them to the pots you have.
        </p>
      </div>
    </div>
  );
}
