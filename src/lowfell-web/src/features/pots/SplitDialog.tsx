import { useState } from "react";
import { api } from "../../api/client";
import { write } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { figure, name, z } from "../../kit/form/checks";
import { Chosen, Typed } from "../../kit/form/fields";
import { sayFigure } from "../../kit/form/figures";
import { nextLabel, short, vessels } from "./pots";
import { usePotForm } from "./usePotForm";
import type { StepProps } from "./useStep";

const schema = z.object({
  ml: figure("ml", { name: "What is taken", above: 0 }),
  label: name("The label", 80),
  vessel: z.enum(vessels),
});

/** Part of a pot becomes a pot of its own, as old as the first. */
export function SplitDialog(props: StepProps & { taken: string[]; onPot: (id: string) => void }) {
  const { setId, pot } = props;
  const [newPotId] = useState(() => crypto.randomUUID() as string);
  const { control, submit, busy, refused } = usePotForm({
    schema,
    begin: {
      ml: sayFigure(Math.round(pot.ml * 50) / 100, "ml"),
      label: nextLabel(pot.label, props.taken),
      vessel: "wet palette",
    },
    fieldOf: (field) => (field === "name" ? "label" : field),
    call: (values, id) =>
      write((headers) =>
        api.POST("/api/pots/{setId}/{id}/split", {
          headers,
          params: { path: { setId, id: pot.id } },
          body: { id, version: pot.version, newPotId, ...values },
        }),
      ),
    says: (_, { label, ml }) => `${label} holds ${short(ml)} ml of it now.`,
    onDone: props.onClose,
  });
  return (
    <Dialog open onClose={props.onClose} title={`Split ${pot.label}`} says={`${short(pot.ml)} ml are in it.`}>
      <form
        className="grid grid-cols-[90px_1fr_120px] items-start gap-2 max-sm:grid-cols-1"
        noValidate
        onSubmit={(e) => void submit(e)}
      >
        <Typed control={control} name="ml" label="To take" inputMode="decimal" />
        <Typed control={control} name="label" label="Label" />
        <Chosen control={control} name="vessel" label="Kept in" options={vessels} />
        <div className="sm:col-span-3">
          {refused && <Alert>{refused.message}</Alert>}
          <div className="mt-2 flex gap-2">
            <Button type="submit" tone="go" disabled={busy}>
              Split it
            </Button>
            <Button onClick={props.onClose}>Cancel</Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}
