import { write } from "../../api/writes";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWatch } from "react-hook-form";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { figure, z } from "../../kit/form/checks";
import { Chosen, Ticked, Typed } from "../../kit/form/fields";
import { differs, readRatio } from "../../shared/words";
import { Makes } from "./JarSays";
import { short, typed } from "./pots";
import { Refusal } from "./Refusal";
import { usePotForm } from "./usePotForm";
import type { StepProps } from "./useStep";

/** A ratio that holds thinner. */
const thinned = (text: string) => {
  const read = readRatio(text);
  return read === "neat" ? null : read;
};

const had = z.boolean();
const schema = z.discriminatedUnion("way", [
  z.object({
    way: z.literal("ratio"),
    had,
    ratio: z.string().refine((t) => thinned(t) !== null, "Write parts, such as 2:1."),
    thinnerId: z.string(),
  }),
  z.object({ way: z.literal("amount"), had, upTo: figure("ml", { name: "The amount in all", above: 0 }) }),
  z.object({
    way: z.literal("free"),
    had,
    materialId: z.string().min(1, "Choose a material."),
    ml: figure("ml", { name: "The amount", above: 0 }),
  }),
]);

type In = z.input<typeof schema>;

/** What to work out for what is typed so far; null while that cannot be read. */
function question(v: Partial<Record<"way" | "ratio" | "thinnerId" | "upTo", string>>) {
  if (v.way === "ratio") {
    const wanted = thinned(v.ratio ?? "");
    return wanted && { paint: wanted.paint, thinner: wanted.thinner, thinnerId: v.thinnerId ?? "", ml: null };
  }
  const upTo = v.way === "amount" ? typed(v.upTo ?? "") : null;
  return upTo === null ? null : { paint: null, thinner: null, thinnerId: null, ml: upTo };
}

/** Thin to a ratio, fill up to an amount, or put anything in: what to add is worked out and shown before it is stored. */
export function AddDialog(props: StepProps & { materials: Schema["MaterialCard"][] }) {
  const { setId, pot, materials } = props;
  const thinners = materials.filter((m) => m.kind === "thinner");
  const [begin] = useState<In>(() => ({
    way: pot.ml > 0 ? "ratio" : "free",
    had: false,
    ratio: "1:1",
    thinnerId:
      pot.contents.find((c) => thinners.some((t) => t.id === c.materialId))?.materialId ??
      thinners[0]?.id ??
      "",
    upTo: `${short(Math.ceil(pot.ml) + 5)} ml`,
    // Whatever goes in by hand is chosen, and never the first of the shelf by chance.
    materialId: "",
    ml: "",
  }));
  const { control, submit, busy, refused } = usePotForm({
    schema,
    begin,
    fieldOf: (field) => field.replace("amounts[0].", ""),
    call: (values, id) =>
      write((headers) =>
        api.POST("/api/pots/{setId}/{id}/top-up", {
          headers,
          params: { path: { setId, id: pot.id } },
          body: {
            id,
            version: pot.version,
            amounts:
              values.way === "free" ? [{ materialId: values.materialId, ml: values.ml, drops: null }] : add,
            bottleHadMore: values.had,
          },
        }),
      ),
    says: (p) => `${p.label}: ${short(p.ml)} ml, ${p.dilution}.`,
    onDone: props.onClose,
  });
  const now = useWatch({ control });
  const way = now.way;
  const ask = question(now);
  const answer = useQuery({
    queryKey: ["pots", setId, "ask", pot.id, pot.version, ask],
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/pots/{setId}/{id}/ask", {
          params: { path: { setId, id: pot.id } },
          body: ask!,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    enabled: ask !== null,
    retry: false,
  });
  const add =
    ask && !answer.error && !answer.isPlaceholderData
      ? (answer.data?.add.map((a) => ({ materialId: a.materialId, ml: a.ml, drops: null })) ?? [])
      : [];
  const wrong = answer.error instanceof Refused ? answer.error.message : "";
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`Top up or thin ${pot.label}`}
      says={`${short(pot.ml)} ml, ${pot.dilution}.`}
    >
      <form noValidate onSubmit={(e) => void submit(e)}>
        <div className="grid grid-cols-1 sm:grid-cols-[150px_1fr_1fr] items-start gap-2">
          <Chosen
            control={control}
            name="way"
            label="What to do"
            options={[
              { value: "ratio", text: "Thin to a ratio" },
              { value: "amount", text: "Fill up" },
              { value: "free", text: "Put something in" },
            ].filter((o) => pot.ml > 0 || o.value === "free")}
          />
          {way === "ratio" && (
            <>
              <Typed control={control} name="ratio" label="Paint : thinner" />
              <Chosen
                control={control}
                name="thinnerId"
                label="With"
                options={thinners.map((t) => ({ value: t.id, text: t.name }))}
              />
            </>
          )}
          {way === "amount" && <Typed control={control} name="upTo" label="In all" inputMode="decimal" />}
          {way === "free" && (
            <>
              <Chosen
                control={control}
                name="materialId"
                label="Material"
                options={materials.map((m) => ({ value: m.id, text: m.name, group: m.maker || "No maker" }))}
              />
              <Typed control={control} name="ml" label="How much" placeholder="ml" inputMode="decimal" />
            </>
          )}
        </div>
        {way !== "free" && (
          <div className="mt-3 text-sm" aria-live="polite" data-answer>
            {wrong ? (
              <Refusal says={wrong} />
            ) : (
              answer.data &&
              ask && (
                <>
                  <p>
                    <b>{answer.data.says}</b>{" "}
                    {answer.data.add.length > 0 && (
                      <span className="text-xs text-soft">
                        About {answer.data.add.map((a) => `${a.drops} drops`).join(" and ")};{" "}
                        {short(answer.data.totalMl)} ml in all, against what it is on a card:{" "}
                        {differs(answer.data.difference)}.
                      </span>
                    )}
                  </p>
                  <Makes answer={answer.data} />
                </>
              )
            )}
          </div>
        )}
        {refused && <Refusal says={refused.message} />}
        {(refused?.refusal.code === "not-enough" || now.had) && (
          <div className="mt-2">
            <Ticked
              control={control}
              name="had"
              label="The bottle held more than the books say: correct the books, then fill"
            />
          </div>
        )}
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go" disabled={busy || (ask !== null && add.length === 0)}>
            It is in
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
