import { useEffect, useRef, useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import { readAgain } from "../../api/cache";
import { api, Refused, take, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Restored } from "../../kit/form/fields";
import { useForm } from "../../kit/form/useForm";
import { plural } from "../../kit/severity";
import { useSay } from "../../kit/Toast";
import { blankForm, forCard, formOf, schema, toMaterial, type Entered, type Form } from "./form";
import { Effects } from "./Effects";
import { MaterialFields } from "./MaterialFields";
import { Predicted } from "./Predicted";
import { Replace } from "./Replace";
import { Taught } from "./Taught";
import { Uses } from "./Uses";

type Material = Schema["MaterialCard"];

/** A material as it is entered, with the drawdown the model predicts of it. */
export function MaterialForm(props: {
  workshopId: string;
  currency: string;
  material?: Material;
  onOpen: (id: string) => void;
  onClose: () => void;
}) {
  const { workshopId, material, onOpen, onClose } = props;
  const say = useSay();
  const [send] = useWrite("shelf");
  const [replacing, setReplacing] = useState(false);
  const { asked, agrees, answer } = useAgreed();

  const store = async (values: Entered, from: number | null) => {
    if (material && material.uses > 0) {
      const effect = await take(
        api.POST("/api/shelf/materials/{id}/effect", {
          params: { path: { id: material.id } },
          body: toMaterial(values, from),
        }),
      );
      if (effect.zones.length > 0 && !(await agrees(effect))) throw NOT_NOW;
    }
    const stored = material
      ? await send((headers) =>
          api.PUT("/api/shelf/materials/{id}", {
            headers,
            params: { path: { id: material.id } },
            body: toMaterial(values, from),
          }),
        )
      : await send((headers) =>
          api.POST("/api/shelf/{workshopId}/materials", {
            headers,
            params: { path: { workshopId } },
            body: toMaterial(values, null),
          }),
        );
    against(stored.version);
    say(`${stored.name} is on the shelf.`);
    if (!material) onOpen(stored.id);
  };
  const { form, submit, busy, refused, setRefused, restored, startOver, against } = useForm({
    draft: `material ${material?.id ?? `new ${workshopId}`}`,
    schema,
    version: material?.version,
    begin: material ? formOf(material) : blankForm,
    send: store,
  });
  const { preview, doubt } = useCard(form, material);
  // A new one is begun by its name.
  const fresh = !material;
  useEffect(() => {
    if (fresh) form.setFocus("name");
  }, [fresh, form]);

  /** A card that no coat could look like is told while it is typed; half-typed colours are not. */
  const cardFault = (field: string) => doubt?.refusal.errors.find((e) => e.field === field)?.message;
  const remove = async () => {
    if (!material) return;
    try {
      await send((headers) =>
        api.DELETE("/api/shelf/materials/{id}", { headers, params: { path: { id: material.id } } }),
      );
      startOver();
      onClose();
      say(
        `${material.name} was taken off the shelf.${material.uses > 0 ? ` ${plural(material.uses, "layer")} still ${material.uses === 1 ? "has" : "have"} it, and ${material.uses === 1 ? "is" : "are"} offered what comes nearest.` : ""}`,
        false,
        { text: "Undo", run: () => void back() },
      );
    } catch (error) {
      if (error instanceof Refused) setRefused(error);
    }
  };
  const back = async () => {
    const there = await send((headers) =>
      api.POST("/api/shelf/materials/{id}/bring-back", { headers, params: { path: { id: material!.id } } }),
    );
    say(`${there.name} is on the shelf again.`);
  };

  const theirs =
    refused?.refusal.code === "changed-elsewhere"
      ? (refused.refusal.current as Material | undefined)
      : undefined;
  return (
    <aside
      aria-label={material ? material.name : "New material"}
      className="min-h-0 overflow-y-auto border-line bg-aside px-4 pt-3 pb-6 md:border-l"
    >
      <div className="flex items-baseline gap-2">
        <h2 className="min-w-0 flex-1 truncate text-lg font-semibold">
          {material ? material.name : "New material"}
        </h2>
        <Button onClick={onClose}>Close</Button>
      </div>
      <Restored shown={restored} onOver={() => startOver()} />
      {preview && preview.coloured && <Predicted card={preview.card} />}
      {refused && refused !== NOT_NOW && (
        <Alert title="Not stored." className="mt-2">
          {refused.message} What you typed is kept.
          {theirs && (
            <Settle
              theirs={theirs}
              mine={form.getValues()}
              onMine={() => {
                against(theirs.version);
                void submit();
              }}
              onTheirs={() => {
                startOver(formOf(theirs), theirs.version);
                void readAgain(["shelf"]);
              }}
            />
          )}
        </Alert>
      )}
      <form className="mt-3 grid grid-cols-2 gap-x-3 gap-y-2" noValidate onSubmit={(e) => void submit(e)}>
        <MaterialFields
          form={form}
          usual={preview?.usual ?? null}
          currency={props.currency}
          cardFault={cardFault}
        />
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
        <Uses materialId={material.id} workshopId={workshopId} onReplace={() => setReplacing(true)} />
      )}
      {material && asked && (
        <Dialog
          open
          wide
          onClose={() => answer(false)}
          title={`${material.name}, changed`}
          says="Layers have it. This is what the change does where it is used; Ctrl Z takes it back."
        >
          <Effects effect={asked} />
          <div className="mt-3 flex gap-2">
            <Button tone="go" onClick={() => answer(true)}>
              Store it
            </Button>
            <Button onClick={() => answer(false)}>Not now</Button>
          </div>
        </Dialog>
      )}
      {material && replacing && (
        <Replace material={material} workshopId={workshopId} onClose={() => setReplacing(false)} />
      )}
    </aside>
  );
}

/** What is typed stays typed: nothing was sent. */
const NOT_NOW = new Refused({
  status: 0,
  code: "not-now",
  detail: "",
  errors: [],
  current: null,
});

/** Shows what a change does, and waits for a yes or a no. */
function useAgreed() {
  const [asked, setAsked] = useState<Schema["UseEffect"] | null>(null);
  const answered = useRef<(yes: boolean) => void>(() => {});
  return {
    asked,
    agrees: (effect: Schema["UseEffect"]) =>
      new Promise<boolean>((resolve) => {
        answered.current = resolve;
        setAsked(effect);
      }),
    answer: (yes: boolean) => {
      setAsked(null);
      answered.current(yes);
    },
  };
}

function Settle(props: { theirs: Material; mine: Form; onMine: () => void; onTheirs: () => void }) {
  const { theirs, mine } = props;
  return (
    <div className="mt-1">
      <p>
        Stored there: {theirs.name}, {theirs.kind}, {theirs.colour ?? "clear"}, {theirs.stockMl} ml. Yours:{" "}
        {mine.name}, {mine.kind}, {mine.colour || "clear"}, {mine.stockMl}.
      </p>
      <div className="mt-1.5 flex gap-2">
        <Button tone="plain" onClick={props.onMine}>
          Keep mine
        </Button>
        <Button onClick={props.onTheirs}>Take theirs</Button>
      </div>
    </div>
  );
}

type Shown = { card: Material; usual?: Schema["UsualFigures"]; coloured: boolean };

/** The card follows what is typed; a half-typed colour just leaves it as it was. */
function useCard(form: UseFormReturn<Form, unknown, Entered>, material?: Material) {
  const [preview, setPreview] = useState<Shown | null>(material ? { card: material, coloured: true } : null);
  const [doubt, setDoubt] = useState<Refused | null>(null);
  useEffect(() => {
    let asked = new AbortController();
    const ask = (typed: Form) => {
      asked.abort();
      asked = new AbortController();
      const what = forCard(typed);
      if (!what) return;
      take(api.POST("/api/shelf/drawdown", { body: what.body, signal: asked.signal }))
        .then((answer) => {
          setPreview((was) =>
            what.coloured || !was ? { ...answer, coloured: what.coloured } : { ...was, usual: answer.usual },
          );
          setDoubt(null);
        })
        .catch((error: unknown) => {
          if (error instanceof Refused) setDoubt(error);
        });
    };
    ask(form.getValues());
    const unsubscribe = form.subscribe({
      formState: { values: true },
      callback: ({ values }) => ask(values),
    });
    return () => {
      unsubscribe();
      asked.abort();
    };
  }, [form]);
  return { preview, doubt };
}
