import { write } from "../../api/writes";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { useNavigate, useParams } from "react-router";
import { api, Refused, type Schema } from "../../api/client";
import { workshopsQuery } from "../../api/queries";
import { Silhouette } from "../../drawing/Silhouette";
import { Button } from "../../kit/Button";
import { Choice, TextField } from "../../kit/Field";
import { useCommands } from "../../kit/keys";
import { Trouble } from "../../kit/Trouble";
import { DesignForm, draftOf, toBody, type DesignDraft } from "./DesignForm";
import { presetsQuery } from "./presets";

const steps = ["The set", "Kind of piece", "The design", "Its zones", "First layers"] as const;

/** Five steps from an empty bench to a first set; never a blank form. */
export function Component() {
  const { workshopId = "new" } = useParams();
  const workshops = useQuery(workshopsQuery);
  const presets = useQuery(presetsQuery);
  const error = workshops.error ?? presets.error;
  useCommands("New set", [], { view: true, ready: !!error || (!!workshops.data && !!presets.data) });
  if (error)
    return (
      <Trouble
        error={error}
        retry={() => {
          void workshops.refetch();
          void presets.refetch();
        }}
      />
    );
  if (!workshops.data || !presets.data) return null;
  return (
    <Start
      key={workshopId}
      workshop={workshops.data.find((w) => w.id === workshopId)}
      presets={presets.data}
      first={workshops.data.every((w) => w.sets.length === 0)}
    />
  );
}

function Start({
  workshop,
  presets,
  first,
}: {
  workshop?: Schema["WorkshopEntry"];
  presets: Schema["DesignPreset"][];
  first: boolean;
}) {
  const [step, setStep] = useState(0);
  const [bench, setBench] = useState(workshop?.name ?? "My bench");
  const [set, setSet] = useState({
    name: "My first set",
    scale: "56",
    tableMetres: "0.9",
    handling: "careful" as Schema["Handling"],
    targetSheen: "matt" as Schema["Sheen"],
  });
  const [draft, setDraft] = useState<DesignDraft>(() => draftOf(presets[0]!));
  const [layers, setLayers] = useState(true);
  const [refused, setRefused] = useState<Refused | null>(null);
  const [busy, setBusy] = useState(false);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const heading = useRef<HTMLHeadingElement>(null);
  const fault = (field: string) => refused?.refusal.errors.find((e) => e.field === field)?.message;

  const moved = useRef(false);
  useEffect(() => {
    if (moved.current) heading.current?.focus();
    moved.current = true;
  }, [step]);

  const store = async () => {
    setBusy(true);
    setRefused(null);
    try {
      const home =
        workshop ??
        (await write((headers) =>
          api.POST("/api/workshops", {
            headers,
            body: { name: bench, temperatureC: null, relativeHumidity: null },
          }),
        ));
      const made = await write((headers) =>
        api.POST("/api/plan/sets", {
          headers,
          body: {
            workshopId: home.id,
            name: set.name,
            scale: Math.trunc(Number(set.scale)) || null,
            tableMetres: Number(set.tableMetres.replace(",", ".")) || null,
            handling: set.handling,
            targetSheen: set.targetSheen,
            design: toBody(draft),
            startingLayers: layers,
          },
        }),
      );
      await queries.invalidateQueries();
      void navigate(`/plan/${made.setId}/${made.firstZoneId}`);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefused(error);
      const field = error.refusal.errors[0]?.field ?? "";
      setStep(field.startsWith("design.zones") ? 3 : field.startsWith("design") ? 2 : field ? 0 : 4);
    } finally {
      setBusy(false);
    }
  };

  const pages: ReactNode[] = [
    <div key="set" className="grid max-w-xl grid-cols-2 gap-3">
      {!workshop && (
        <TextField label="Name of the workshop" value={bench} onChange={(e) => setBench(e.target.value)} />
      )}
      <TextField
        label="Name of the set"
        value={set.name}
        fault={fault("name")}
        onChange={(e) => setSet({ ...set, name: e.target.value })}
      />
      <TextField
        label="Scale, the n of 1:n"
        inputMode="numeric"
        value={set.scale}
        fault={fault("scale")}
        onChange={(e) => setSet({ ...set, scale: e.target.value })}
      />
      <TextField
        label="Seen from, metres"
        inputMode="decimal"
        value={set.tableMetres}
        fault={fault("tableMetres")}
        hint="from the players' eyes to the table"
        onChange={(e) => setSet({ ...set, tableMetres: e.target.value })}
      />
      <Choice
        label="Handling"
        value={set.handling}
        options={["display", "careful", "hard play"] as const}
        onChange={(handling) => setSet({ ...set, handling })}
      />
      <Choice
        label="Final sheen"
        value={set.targetSheen}
        options={["matt", "satin", "gloss"] as const}
        onChange={(targetSheen) => setSet({ ...set, targetSheen })}
      />
    </div>,
    <div key="kind" role="radiogroup" aria-label="Kind of piece" className="grid max-w-3xl grid-cols-2 gap-3">
      {presets.map((p) => (
        <button
          key={p.kind}
          type="button"
          role="radio"
          aria-checked={draft.kind === p.kind}
          onClick={() => setDraft(draftOf(p))}
          className={`flex items-center gap-4 border p-4 text-left ${draft.kind === p.kind ? "border-tide bg-tide-wash shadow-[inset_3px_0_0_var(--tide)]" : "border-line bg-card hover:border-ink"}`}
        >
          <Silhouette shape={p.silhouette} />
          <span>
            <b className="text-base">{p.kind.charAt(0).toUpperCase() + p.kind.slice(1)}</b>
            <span className="block text-soft">{p.says}</span>
            <span className="block text-xs text-soft">
              Zones: {p.zones.map((z) => z.name.toLowerCase()).join(", ")}
            </span>
          </span>
        </button>
      ))}
    </div>,
    <div key="design" className="max-w-2xl">
      <DesignForm
        draft={draft}
        onChange={setDraft}
        faults={refused?.refusal.errors ?? []}
        prefix="design."
        part="design"
      />
    </div>,
    <div key="zones" className="max-w-2xl">
      <p className="mb-2 text-soft">
        Areas are for one piece. A guess within a quarter is good enough to begin with; you can measure later.
      </p>
      <DesignForm
        draft={draft}
        onChange={setDraft}
        faults={refused?.refusal.errors ?? []}
        prefix="design."
        part="zones"
      />
    </div>,
    <div key="layers" className="max-w-2xl">
      <label className="flex gap-2">
        <input type="checkbox" checked={layers} onChange={(e) => setLayers(e.target.checked)} />
        <span>
          <b>Lay a plain stack on every zone</b>
          <span className="block text-soft">
            Primer, ground colour in two coats, wash, dry brush, varnish, from a dozen plain stand-in
            materials. Change them to the pots you have.
          </span>
        </span>
      </label>
      <h3 className="mt-5 text-sm font-semibold">What will be made</h3>
      <p>
        {set.name}, 1:{set.scale}, seen from {set.tableMetres} m: {draft.pieces} × {draft.name} in{" "}
        {draft.substrate} with {draft.zones.length} zone{draft.zones.length === 1 ? "" : "s"} (
        {draft.zones.map((z) => z.name).join(", ")}).
      </p>
    </div>,
  ];

  return (
    <div className="h-full overflow-y-auto">
      <form
        className="mx-auto max-w-4xl px-8 py-8"
        onSubmit={(e) => {
          e.preventDefault();
          if (step < steps.length - 1) setStep(step + 1);
          else void store();
        }}
      >
        <h1 className="text-xl font-semibold">{first ? "Your first set" : "A new set"}</h1>
        <p className="mt-1 text-soft">Five short steps. Everything can be changed afterwards.</p>
        <ol className="mt-5 flex gap-1" aria-label="Steps">
          {steps.map((s, i) => (
            <li key={s} className="flex-1">
              <button
                type="button"
                aria-current={i === step ? "step" : undefined}
                onClick={() => setStep(i)}
                className={`w-full border-t-[3px] pt-1 text-left text-xs ${i <= step ? "border-tide" : "border-line"} ${i === step ? "font-bold" : "text-soft"}`}
              >
                {i + 1} {s}
              </button>
            </li>
          ))}
        </ol>
        <h2 ref={heading} tabIndex={-1} className="mt-7 mb-3 text-lg font-semibold outline-none">
          {steps[step]}
        </h2>
        {refused && (
          <p
            role="alert"
            className="mb-3 max-w-2xl border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs"
          >
            <b>■ Not made yet.</b> {refused.message} What you typed is kept.
          </p>
        )}
        {pages[step]}
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
