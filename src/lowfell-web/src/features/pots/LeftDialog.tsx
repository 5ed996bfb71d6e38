import { api } from "../../api/client";
import { write } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { figure, words, z } from "../../kit/form/checks";
import { Typed } from "../../kit/form/fields";
import { sayFigure } from "../../kit/form/figures";
import { short } from "./pots";
import { Refusal } from "./Refusal";
import { usePotForm } from "./usePotForm";
import { useStep, type StepProps } from "./useStep";

const schema = z.object({ leftMl: figure("ml", { name: "What is left", least: 0 }), note: words("Why") });

/** What is really left: counted anew, or all of it thrown away. */
export function LeftDialog(props: StepProps) {
  const { setId, pot } = props;
  const path = { setId, id: pot.id };
  const { control, form, submit, busy, refused } = usePotForm({
    schema,
    begin: { leftMl: sayFigure(Math.round(pot.ml * 100) / 100, "ml"), note: "" },
    fieldOf: (field) => (field === "ml" ? "leftMl" : field),
    call: (values, id) =>
      write((headers) =>
        api.POST("/api/pots/{setId}/{id}/correct", {
          headers,
          params: { path },
          body: { id, version: pot.version, ...values },
        }),
      ),
    says: (p) => `${p.label}: ${short(p.ml)} ml.`,
    onDone: props.onClose,
  });
  const { send, general } = useStep(props.onClose);
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`What is left of ${pot.label}`}
      says={`By the book ${short(pot.ml)} ml.`}
    >
      <form
        className="grid grid-cols-[110px_1fr] items-start gap-2 max-sm:grid-cols-1"
        noValidate
        onSubmit={(e) => void submit(e)}
      >
        <Typed control={control} name="leftMl" label="Really left" inputMode="decimal" />
        <Typed control={control} name="note" label="Why (if you like)" />
        <div className="sm:col-span-2">
          {refused && <Alert>{refused.message}</Alert>}
          <Refusal says={general} />
          <div className="mt-2 flex flex-wrap gap-2">
            <Button type="submit" tone="go" disabled={busy}>
              Correct it
            </Button>
            <Button
              tone="plain"
              onClick={() =>
                void send(
                  (id) =>
                    write((headers) =>
                      api.POST("/api/pots/{setId}/{id}/throw-away", {
                        headers,
                        params: { path },
                        body: { id, version: pot.version, note: form.getValues("note") },
                      }),
                    ),
                  (p) => `${p.label} is empty. Solvents do not go down the drain.`,
                )
              }
            >
              Throw all of it away
            </Button>
            <Button onClick={props.onClose}>Cancel</Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}
