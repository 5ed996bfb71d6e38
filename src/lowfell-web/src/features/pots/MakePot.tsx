import { write } from "../../api/writes";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useWatch } from "react-hook-form";
import { api, type Schema } from "../../api/client";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { figure, name, z } from "../../kit/form/checks";
import { Chosen, Ticked, Typed } from "../../kit/form/fields";
import { differs } from "../../shared/words";
import { nextLabel, short, typed, vessels, type Look } from "./pots";
import { look as ask } from "./queries";
import { usePotForm } from "./usePotForm";
import { Cell, Figure, Row, Table } from "../../kit/Table";

const pot = {
  label: name("The label", 80),
  vessel: z.enum(vessels),
  standsIn: z.boolean(),
  had: z.boolean(),
};

/** In drops or by volume: what stands in the other fields is kept and not checked. */
const schema = z.discriminatedUnion("unit", [
  z.object({
    ...pot,
    unit: z.literal("drops"),
    drops: z.array(figure("drops", { name: "A count of drops", above: 0, whole: true })),
  }),
  z.object({ ...pot, unit: z.literal("ml"), mls: z.array(figure("ml", { name: "The amount", above: 0 })) }),
]);

type In = z.input<typeof schema>;

/** What was really measured becomes a pot, and leaves the shelf. */
export function MakePot(props: {
  setId: string;
  look: Look;
  /** The recipe of the plan that it can be laid for, whether it is that recipe, and whether it was mixed to stand in for it. */
  standsFor: string;
  same: boolean;
  standsIn: boolean;
  name: string;
  taken: string[];
  onClose: () => void;
  onMade: (id: string) => void;
}) {
  const { setId, look } = props;
  // Ids are made once, so that a second press sends the same pot again and not another.
  const [ids] = useState(() => ({
    id: crypto.randomUUID() as string,
    eventId: crypto.randomUUID() as string,
  }));
  const [begin] = useState<In>(() => ({
    label: nextLabel(props.name, props.taken),
    vessel: "jar",
    unit: look.totalMl <= 12 ? "drops" : "ml",
    drops: look.lines.map((l) => String(l.wholeUnits)),
    mls: look.lines.map((l) => short(l.ml)),
    standsIn: props.standsIn,
    had: false,
  }));
  const { control, submit, busy, refused } = usePotForm({
    schema,
    begin,
    fieldOf: (field) =>
      field === "name"
        ? "label"
        : field.replace(
            /^amounts\[(\d+)\]\.(drops|ml)$/,
            (_, i, unit) => `${unit === "ml" ? "mls" : "drops"}.${i}`,
          ),
    call: (made) =>
      write((headers) =>
        api.POST("/api/pots/{setId}", {
          headers,
          params: { path: { setId } },
          body: {
            ...ids,
            label: made.label,
            vessel: made.vessel,
            recipeKey: props.same || made.standsIn ? props.standsFor : "",
            bottleHadMore: made.had,
            amounts: look.lines.map((l, i) => ({
              materialId: l.materialId,
              ml: made.unit === "ml" ? made.mls[i]! : null,
              drops: made.unit === "drops" ? made.drops[i]! : null,
            })),
          },
        }),
      ),
    says: (p) => `${p.label} stands on the bench: ${short(p.ml)} ml.`,
    onDone: (p) => props.onMade(p.id),
  });
  const now: { unit?: string; drops?: string[]; mls?: string[]; had?: boolean } = useWatch({ control });
  const unit = now.unit === "drops" ? "drops" : "ml";
  const amounts = look.lines.map((line, i) => {
    const n = typed((unit === "drops" ? now.drops : now.mls)?.[i] ?? "", unit);
    return { line, ml: n === null ? null : unit === "drops" ? n * line.unitMl : n };
  });
  const total = amounts.reduce((sum, a) => sum + (a.ml ?? 0), 0);
  const whole = amounts.every((a) => a.ml !== null && a.ml > 0);
  const body: Schema["JarIn"] = {
    parts: amounts.map((a) => ({
      materialId: a.line.materialId,
      parts: Math.round((a.ml ?? 0) * 10_000) / 10_000,
    })),
    totalMl: Math.max(0.1, Math.min(5000, total)),
    against: look.lines.map((l) => ({ materialId: l.materialId, parts: Number(l.parts) })),
  };
  const measured = useQuery({
    queryKey: ["pots", setId, "jar", body],
    queryFn: ({ signal }) => ask(setId, body, signal),
    placeholderData: keepPreviousData,
    enabled: whole,
  });
  return (
    <Dialog
      open
      onClose={props.onClose}
      title="Make a pot"
      says="Type what really went in: that is what pieces will be matched by."
    >
      <form noValidate onSubmit={(e) => void submit(e)}>
        <div className="grid grid-cols-1 sm:grid-cols-[1fr_120px_90px] gap-2">
          <Typed control={control} name="label" label="Label" maxLength={80} />
          <Chosen control={control} name="vessel" label="Kept in" options={vessels} />
          <Chosen control={control} name="unit" label="Measured in" options={["drops", "ml"]} />
        </div>
        <Table caption="What went in" className="mt-3 text-sm">
          {amounts.map((a, i) => (
            <Row
              key={a.line.materialId}
              head={
                <>
                  {a.line.name}
                  <span className="block text-xs text-soft">
                    recipe:{" "}
                    {unit === "drops"
                      ? `${short(a.line.units)} ${a.line.unitWord}`
                      : `${short(a.line.ml)} ml`}
                  </span>
                </>
              }
            >
              <Cell className="w-24">
                <Typed
                  key={unit}
                  control={control}
                  name={unit === "drops" ? `drops.${i}` : `mls.${i}`}
                  label={`${unit === "drops" ? "Drops" : "ml"} of ${a.line.name}`}
                  hideLabel
                  inputMode="decimal"
                />
              </Cell>
              <Figure className="w-20 text-xs text-soft">{a.ml === null ? "" : `${short(a.ml)} ml`}</Figure>
            </Row>
          ))}
        </Table>
        <p className="mt-2 text-xs" data-measured>
          {whole ? (
            <>
              In all <b>{short(total)} ml</b>
              {measured.data &&
                `, ${measured.data.dilution}, off the recipe on a card: ${differs(measured.data.difference ?? 0)}.`}
            </>
          ) : (
            "Give a number above 0 for each, or take a component out of the jar first."
          )}
        </p>
        {props.standsFor && !props.same && (
          <div className="mt-2">
            <Ticked
              control={control}
              name="standsIn"
              label="It stands in for the mix of the plan, and goes where that goes"
            />
          </div>
        )}
        {refused && <Alert className="mt-2">{refused.message}</Alert>}
        {(refused?.refusal.code === "not-enough" || now.had) && (
          <div className="mt-2">
            <Ticked
              control={control}
              name="had"
              label="The bottle held more than the books say: correct the books, then mix"
            />
          </div>
        )}
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go" disabled={busy}>
            It is mixed
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
