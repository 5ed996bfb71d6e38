import { api, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { maybe, z } from "../../kit/form/checks";
import { Typed } from "../../kit/form/fields";
import { sayFigure } from "../../kit/form/figures";
import { useForm } from "../../kit/form/useForm";
import { paceFields, read, say, type PaceForm } from "./pace";

const schema = z.object(
  Object.fromEntries(
    paceFields.map((f) => [f.name, maybe(f.unit, { name: f.label, least: f.least, most: f.most })]),
  ) as {
    [K in keyof PaceForm]: ReturnType<typeof maybe>;
  },
);

/** What the minutes of a technique come of in this workshop; what is left empty is the rule of thumb. */
export function PaceDialog(props: {
  cost: Schema["TechniqueCost"];
  reading: Schema["EstimatesReading"];
  onClose: () => void;
}) {
  const { cost, reading, onClose } = props;
  const [send] = useWrite("plan");
  const store = (figures: Schema["PaceFigures"] | null, version: number | null) =>
    send((headers) =>
      api.PUT("/api/workshops/{workshopId}/paces/{technique}", {
        headers,
        params: { path: { workshopId: reading.workshopId, technique: cost.technique } },
        body: { version, figures },
      }),
    );
  const { form, submit, busy, refused } = useForm({
    draft: `pace ${reading.workshopId} ${cost.technique}`,
    schema,
    version: reading.workshopVersion,
    begin: say(cost.own),
    send: async (values, from) => {
      await store(read(values), from);
      onClose();
    },
  });
  const usual = say(cost.usual);
  return (
    <Dialog
      open
      onClose={onClose}
      title={`What ${cost.technique} takes here`}
      says="By rule of thumb where nothing is written. Estimates and timetables follow; Ctrl Z takes it back."
    >
      <form noValidate className="grid gap-3 sm:grid-cols-2" onSubmit={(e) => void submit(e)}>
        {paceFields.map((f) => (
          <Typed
            key={f.name}
            control={form.control}
            name={f.name}
            label={f.label}
            hint={f.hint}
            placeholder={`usually ${usual[f.name] || sayFigure(0, f.unit)}`}
            inputMode="decimal"
          />
        ))}
        <div className="sm:col-span-2">
          {refused && <Alert title="Not stored.">{refused.message} What you typed is kept.</Alert>}
        </div>
        <div className="flex flex-wrap gap-2 sm:col-span-2">
          <Button type="submit" tone="go" disabled={busy}>
            Store it
          </Button>
          <Button disabled={busy} onClick={() => void store(null, reading.workshopVersion).then(onClose)}>
            Rules of thumb again
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
