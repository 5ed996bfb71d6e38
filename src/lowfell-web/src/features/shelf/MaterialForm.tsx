import { readAgain } from "../../api/cache";
import { useWrite } from "../../api/writes";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { ColourField } from "../../kit/ColourField";
import { Choice, TextField } from "../../kit/Field";
import { useSay } from "../../kit/Toast";
import { Drawdown, hiding } from "./MaterialTile";
import { Taught } from "./Taught";
import {
  blankForm,
  carriers,
  formOf,
  kinds,
  lustres,
  sheens,
  thinnerFamilies,
  toMaterial,
  type Form,
} from "./form";

type Material = Schema["MaterialCard"];

/** A material as it is entered, with the drawdown the model predicts of it. */
export function MaterialForm(props: {
  workshopId: string;
  material?: Material;
  onOpen: (id: string) => void;
  onClose: () => void;
}) {
  const { workshopId, material, onOpen, onClose } = props;
  const [form, setForm] = useState<Form>(() => (material ? formOf(material) : blankForm));
  const [version, setVersion] = useState(material?.version ?? 0);
  const [refused, setRefused] = useState<Refused | null>(null);
  const [preview, setPreview] = useState<Material | undefined>(material);
  const [doubt, setDoubt] = useState<Refused | null>(null);
  const say = useSay();
  const uses = useQuery({
    queryKey: ["uses", material?.id],
    enabled: !!material,
    queryFn: ({ signal }) =>
      take(api.GET("/api/shelf/materials/{id}/uses", { params: { path: { id: material!.id } }, signal })),
  });

  // The card follows what is typed; a half-typed colour just leaves it as it was.
  useEffect(() => {
    const stop = new AbortController();
    take(api.POST("/api/shelf/drawdown", { body: toMaterial(form, null), signal: stop.signal }))
      .then((card) => {
        setPreview(card);
        setDoubt(null);
      })
      .catch((error: unknown) => {
        if (error instanceof Refused) setDoubt(error);
      });
    return () => stop.abort();
  }, [form]);

  /** A card that no coat could look like is told while it is typed; half-typed colours are not. */
  const cardFault = (field: string) =>
    /^#[0-9a-f]{6}$/i.test(form.overBlack) && /^#[0-9a-f]{6}$/i.test(form.overWhite)
      ? doubt?.refusal.errors.find((e) => e.field === field)?.message
      : undefined;
  const fault = (field: string) => refused?.refusal.errors.find((e) => e.field === field)?.message;
  const bind = (key: keyof Form) => ({
    value: form[key] as string,
    fault: fault(key),
    onChange: (e: { target: { value: string } }) => setForm({ ...form, [key]: e.target.value }),
  });
  const pick = (key: "colour" | "overBlack" | "overWhite") => ({
    value: form[key],
    fault: fault(key) ?? cardFault(key),
    onChange: (colour: string) => setForm((f) => ({ ...f, [key]: colour })),
  });
  const [send, busy] = useWrite("shelf");

  const store = async (against = version) => {
    setRefused(null);
    try {
      const stored = material
        ? await send((headers) =>
            api.PUT("/api/shelf/materials/{id}", {
              headers,
              params: { path: { id: material.id } },
              body: toMaterial(form, against),
            }),
          )
        : await send((headers) =>
            api.POST("/api/shelf/{workshopId}/materials", {
              headers,
              params: { path: { workshopId } },
              body: toMaterial(form, null),
            }),
          );
      setVersion(stored.version);
      say(`${stored.name} is on the shelf.`);
      if (!material) onOpen(stored.id);
    } catch (error) {
      if (error instanceof Refused) setRefused(error);
    }
  };
  const remove = async () => {
    if (!material) return;
    try {
      await send((headers) =>
        api.DELETE("/api/shelf/materials/{id}", { headers, params: { path: { id: material.id } } }),
      );
      onClose();
      say(`${material.name} was taken off the shelf.`);
    } catch (error) {
      if (error instanceof Refused) setRefused(error);
    }
  };

  const theirs =
    refused?.refusal.code === "changed-elsewhere"
      ? (refused.refusal.current as Material | undefined)
      : undefined;
  return (
    <aside
      aria-label={material ? material.name : "New material"}
      className="min-h-0 overflow-y-auto border-l border-line bg-aside px-4 pt-3 pb-6"
    >
      <div className="flex items-baseline gap-2">
        <h2 className="min-w-0 flex-1 truncate text-lg font-semibold">
          {material ? material.name : "New material"}
        </h2>
        <Button onClick={onClose}>Close</Button>
      </div>
      {preview && (
        <figure className="mt-2">
          <ol className="grid grid-cols-3 gap-1.5" aria-label="Predicted drawdown">
            {preview.drawdowns.map((d) => (
              <li key={d.coats} className="text-xs text-soft">
                <Drawdown over={d} clear={preview.opticsSource === "clear"} height={76} />
                {d.coats} coat{d.coats > 1 ? "s" : ""}
                <span className="sr-only">
                  : over black {d.overBlack}, over white {d.overWhite}
                </span>
              </li>
            ))}
          </ol>
          <figcaption className="mt-1 text-xs text-soft">
            Predicted over black and white: {hiding(preview)}.{" "}
            {preview.cardDoubt && (
              <>
                Read one step off, it would hide in {preview.cardDoubt.coatsLow} to{" "}
                {preview.cardDoubt.coatsHigh} coats.{" "}
                {preview.cardDoubt.faint && (
                  <b>The halves are nearly alike, so its hiding is hardly known: lay a thinner coat.</b>
                )}{" "}
              </>
            )}
            {preview.opticsSource === "estimated" && (
              <b>Its hiding is an estimate from the colour alone; a contrast card would settle it.</b>
            )}
          </figcaption>
        </figure>
      )}
      {refused && (
        <div role="alert" className="mt-2 border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs">
          <b>■ Not stored.</b> {refused.message} What you typed is kept.
          {theirs && (
            <div className="mt-1">
              <p>
                Stored there: {theirs.name}, {theirs.kind}, {theirs.colour ?? "clear"}, {theirs.stockMl} ml.
                Yours: {form.name}, {form.kind}, {form.colour || "clear"}, {form.stockMl} ml.
              </p>
              <div className="mt-1.5 flex gap-2">
                <Button tone="plain" onClick={() => void store(theirs.version)}>
                  Keep mine
                </Button>
                <Button
                  onClick={() => {
                    setForm(formOf(theirs));
                    setVersion(theirs.version);
                    setRefused(null);
                    void readAgain(["shelf"]);
                  }}
                >
                  Take theirs
                </Button>
              </div>
            </div>
          )}
        </div>
      )}
      <form
        className="mt-3 grid grid-cols-2 gap-x-3 gap-y-2"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void store();
        }}
      >
        <div className="col-span-2">
          <TextField label="Name" {...bind("name")} />
        </div>
        <TextField label="Maker" {...bind("maker")} />
        <TextField label="Code" {...bind("code")} />
        <Choice
          label="Kind"
          value={form.kind}
          options={kinds}
          fault={fault("kind")}
          onChange={(kind) => setForm({ ...form, kind })}
        />
        <Choice
          label="Carrier"
          value={form.carrier}
          options={carriers}
          fault={fault("carrier")}
          onChange={(carrier) => setForm({ ...form, carrier })}
        />
        <fieldset className="col-span-2 grid gap-2 border-t border-line pt-1.5">
          <legend className="pr-2 text-xs font-semibold">Its colour, best way first</legend>
          <p className="text-xs text-soft">
            Paint one ordinary coat over a card half black, half white, let it dry, and give both colours:
            then Lowfell knows how well it hides. Else give its colour, and the coats it takes to hide black
            if you know them.
          </p>
          <ColourField label="Card: one coat over black" {...pick("overBlack")} />
          <ColourField label="Card: one coat over white" {...pick("overWhite")} />
          <ColourField label="Colour" placeholder="#6b4f2a" {...pick("colour")} />
          <TextField
            label="Coats to hide black"
            inputMode="decimal"
            placeholder="unknown"
            {...bind("coatsToHide")}
          />
        </fieldset>
        <Choice
          label="Sheen when dry"
          value={form.sheen}
          options={sheens}
          onChange={(sheen) => setForm({ ...form, sheen })}
        />
        <Choice
          label="Metal, glass or glow"
          value={form.lustre}
          options={lustres}
          onChange={(lustre) => setForm({ ...form, lustre })}
        />
        <TextField
          label="Most thinner, share of the mix"
          inputMode="decimal"
          placeholder="usual"
          {...bind("mostThinnerShare")}
        />
        <TextField label="Solids, share 0 to 1" inputMode="decimal" {...bind("solidsFraction")} />
        <TextField label="In stock, ml" inputMode="decimal" {...bind("stockMl")} />
        <TextField label="Pack, ml" inputMode="decimal" {...bind("packMl")} />
        <TextField label="One drop, ml" inputMode="decimal" placeholder="0.05 usual" {...bind("dropMl")} />
        <TextField label="Weighs, g/ml" inputMode="decimal" placeholder="usual" {...bind("densityGPerMl")} />
        <TextField label="Touch dry, min" inputMode="numeric" placeholder="usual" {...bind("touchMinutes")} />
        <TextField label="Recoat, min" inputMode="numeric" placeholder="usual" {...bind("recoatMinutes")} />
        <TextField label="Cure, min" inputMode="numeric" placeholder="usual" {...bind("cureMinutes")} />
        <TextField label="Price a pack" inputMode="decimal" {...bind("price")} />
        <fieldset className="col-span-2">
          <legend className="text-xs text-soft">Thinned or cleaned with</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {thinnerFamilies.map((f) => (
              <label key={f} className="flex min-h-6 items-center gap-1.5 text-xs">
                <input
                  type="checkbox"
                  checked={form.thinners.includes(f)}
                  onChange={(e) =>
                    setForm({
                      ...form,
                      thinners: e.target.checked
                        ? [...form.thinners, f]
                        : form.thinners.filter((x) => x !== f),
                    })
                  }
                />
                {f}
              </label>
            ))}
          </div>
        </fieldset>
        <div className="col-span-2">
          <TextField label="Hazards on the label" {...bind("hazards")} />
        </div>
        <div className="col-span-2">
          <TextField label="Notes" {...bind("notes")} />
        </div>
        <div className="col-span-2 mt-1 flex gap-2">
          <Button type="submit" tone="go" disabled={busy}>
            {material ? "Store changes" : "Put it on the shelf"}
          </Button>
          {material && (
            <Button className="ml-auto" onClick={() => void remove()}>
              Take off the shelf
            </Button>
          )}
        </div>
      </form>
      {material && <Taught material={material} onChanged={() => readAgain(["shelf"])} />}
      {material && (
        <section className="mt-5" aria-label="Used for">
          <h3 className="text-sm font-semibold">Used for</h3>
          {uses.data?.length === 0 && <p className="text-xs text-soft">Not in any layer yet.</p>}
          <ul className="text-xs">
            {uses.data?.map((u) => (
              <li key={`${u.treatment}.${u.layer}`} className="border-t border-line py-1">
                <b>{u.treatment}</b>, layer {u.layer}, {u.technique}
                <span className="block text-soft">{u.zones.join(" · ")}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </aside>
  );
}
