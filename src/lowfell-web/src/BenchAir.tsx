import { api, type Schema } from "./api/client";
import { useWrite } from "./api/writes";
import { Alert } from "./kit/Alert";
import { Button } from "./kit/Button";
import { Dialog } from "./kit/Dialog";
import { figure, percent, z } from "./kit/form/checks";
import { Ticked, Typed } from "./kit/form/fields";
import { sayFigure } from "./kit/form/figures";
import { useForm } from "./kit/form/useForm";
import { useSay } from "./kit/Toast";
import { airWords, useInstruments } from "./shared/instruments";

const LOOK_MS = 15_000;

const schema = z.object({
  temperatureC: figure("°C", { name: "The temperature", least: -10, most: 45 }),
  relativeHumidity: percent({ name: "The humidity", least: 0, most: 100 }),
  airMoves: z.boolean(),
});

/** The room that everything dries in: warmth, humidity, and whether the air stands. */
export function BenchAir({ workshop, onClose }: { workshop: Schema["WorkshopEntry"]; onClose: () => void }) {
  const [send] = useWrite("plan", "shelf");
  const say = useSay();
  const air = useInstruments(workshop.id, LOOK_MS)?.air;
  const measured = air?.by ? air : null;
  const { form, submit, busy, refused } = useForm({
    schema,
    version: workshop.version,
    begin: {
      temperatureC: sayFigure(workshop.temperatureC, "°C"),
      relativeHumidity: sayFigure(Math.round(workshop.relativeHumidity * 100), "%"),
      airMoves: workshop.airMoves,
    },
    send: async (values, from) => {
      await send((headers) =>
        api.PUT("/api/workshops/{workshopId}", {
          headers,
          params: { path: { workshopId: workshop.id } },
          // The version it was typed against: a change from another window is not overwritten.
          body: { name: null, ...values, version: from },
        }),
      );
      say("All drying times are counted anew.");
      onClose();
    },
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title="The air at the bench"
      says={`What everything at ${workshop.name} dries in. Waits and windows follow it.`}
    >
      <form
        className="grid grid-cols-2 items-start gap-3 max-sm:grid-cols-1"
        noValidate
        onSubmit={(e) => void submit(e)}
      >
        <Typed control={form.control} name="temperatureC" label="Temperature" inputMode="decimal" />
        <Typed control={form.control} name="relativeHumidity" label="Humidity" inputMode="decimal" />
        <div className="sm:col-span-2">
          {measured && (
            <p className="mb-2 text-soft">
              Measured now, by {measured.by}: {airWords(measured)}. At the bench that counts while it is
              fresh; plans for other evenings keep to what is typed.{" "}
              <Button
                onClick={() => {
                  form.setValue("temperatureC", sayFigure(Math.round(measured.temperatureC * 2) / 2, "°C"), {
                    shouldDirty: true,
                  });
                  form.setValue(
                    "relativeHumidity",
                    sayFigure(Math.round(measured.relativeHumidity * 100), "%"),
                    { shouldDirty: true },
                  );
                }}
              >
                Type it in
              </Button>
            </p>
          )}
          <Ticked
            control={form.control}
            name="airMoves"
            label="The air moves"
            hint="A fan or an open window: surfaces dry in about three quarters of the time. An estimate; dust flies too."
          />
          {refused && <Alert>{refused.message}</Alert>}
          <div className="mt-3 flex gap-2">
            <Button type="submit" tone="go" disabled={busy}>
              Store it
            </Button>
            <Button onClick={onClose}>Cancel</Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}
