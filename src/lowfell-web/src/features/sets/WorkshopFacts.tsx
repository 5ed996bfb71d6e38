import { useNavigate } from "react-router";
import { api, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { figure, name, words, z } from "../../kit/form/checks";
import { Chosen, Typed } from "../../kit/form/fields";
import { sayFigure } from "../../kit/form/figures";
import { changes } from "../../kit/form/changes";
import { useForm } from "../../kit/form/useForm";
import { handlings, sheens } from "../../shared/choices";
import { useChange } from "../../shared/useChange";

const schema = z.object({
  name: name("The workshop's name", 120),
  tableMetres: figure("m", { name: "The distance", least: 0.1, most: 10 }),
  handling: z.enum(handlings),
  targetSheen: z.enum(sheens),
  currency: words("The currency", 8),
  hours: words("The hours", 300),
  dryingPlaces: figure("", { name: "The places to dry", least: 0, most: 500, whole: true }),
  timeZone: z.string().trim().min(1, "The time zone is missing; write it as Europe/London."),
  painters: words("The initials", 40).refine(
    (t) => initials(t).length <= 4 && initials(t).every((i) => i.length <= 4),
    "At most four painters, with at most four letters each.",
  ),
});

const initials = (text: string) =>
  text
    .split(/[\s,]+/u)
    .map((t) => t.trim())
    .filter(Boolean);

/** A workshop: its name, what a new set begins with, money, hours and painters. */
export function WorkshopFacts({
  workshop,
  onClose,
}: {
  workshop: Schema["WorkshopEntry"];
  onClose: () => void;
}) {
  const [send] = useWrite("plan");
  const [change, busyAway] = useChange(workshop.id);
  const navigate = useNavigate();
  const begin = {
    name: workshop.name,
    tableMetres: sayFigure(workshop.tableMetres, "m"),
    handling: workshop.handling,
    targetSheen: workshop.targetSheen,
    currency: workshop.currency,
    hours: workshop.hours,
    dryingPlaces: sayFigure(workshop.dryingPlaces ?? 0, ""),
    timeZone: workshop.timeZone,
    painters: workshop.painters.join(" "),
  };
  const { form, submit, busy, refused } = useForm({
    draft: `workshop ${workshop.id}`,
    schema,
    version: workshop.version,
    begin,
    send: async (values, from) => {
      const was = schema.parse(begin);
      const { painters, ...rest } = changes(was, values);
      await send((headers) =>
        api.PUT("/api/workshops/{workshopId}", {
          headers,
          params: { path: { workshopId: workshop.id } },
          body: {
            name: null,
            temperatureC: null,
            relativeHumidity: null,
            ...rest,
            painters: painters === undefined ? null : initials(painters),
            version: from,
          },
        }),
      );
      onClose();
    },
  });
  const { control } = form;
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Facts of ${workshop.name}`}
      says="What a new set begins with, and how money and hours are told. Ctrl Z takes any change back."
    >
      <form noValidate className="grid gap-3 sm:grid-cols-2" onSubmit={(e) => void submit(e)}>
        <div className="sm:col-span-2">
          <Typed control={control} name="name" label="Name" />
        </div>
        <Typed control={control} name="tableMetres" label="A new set is seen from" inputMode="decimal" />
        <Chosen control={control} name="handling" label="A new set’s handling" options={handlings} />
        <Chosen control={control} name="targetSheen" label="A new set’s sheen" options={sheens} />
        <Typed control={control} name="currency" label="Currency" placeholder="€" />
        <Typed control={control} name="timeZone" label="Time zone" placeholder="Europe/London" />
        <Typed
          control={control}
          name="painters"
          label="Painters"
          placeholder="AB, CD"
          hint="initials of up to four"
        />
        <div className="sm:col-span-2">
          <Typed
            control={control}
            name="hours"
            label="Hours at the bench"
            placeholder="Tue Thu 19:30-22:00, Sat 10:00-13:00, spraying until 21:00"
            hint="days and times, as you would write them; also “away 2026-12-24 to 2027-01-02” and “extra 2027-01-03 14-18”"
          />
        </div>
        <Typed
          control={control}
          name="dryingPlaces"
          label="Batches that can lie and dry at once"
          inputMode="numeric"
          hint="0: there is room for all"
        />
        <div className="sm:col-span-2">
          {refused && <Alert title="Not stored.">{refused.message} What you typed is kept.</Alert>}
        </div>
        <div className="flex flex-wrap gap-2 sm:col-span-2">
          <Button type="submit" tone="go" disabled={busy}>
            Store it
          </Button>
          <Button onClick={onClose}>Leave as it is</Button>
          <Button
            className="ml-auto"
            disabled={busyAway}
            onClick={() =>
              void change(`${workshop.name} is put away. Everything in it stays.`, (headers) =>
                api.POST("/api/workshops/{workshopId}/put-away", {
                  headers,
                  params: { path: { workshopId: workshop.id } },
                }),
              ).then((done) => done && (onClose(), void navigate("/")))
            }
          >
            Put the workshop away
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
