import { useWatch } from "react-hook-form";
import { api, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { changes } from "../../kit/form/changes";
import { figure, name, scale, z } from "../../kit/form/checks";
import { Chosen, Restored, Typed } from "../../kit/form/fields";
import { readScale, sayFigure } from "../../kit/form/figures";
import { useForm } from "../../kit/form/useForm";
import { plural } from "../../kit/severity";
import { handlings, sheens } from "../../shared/choices";

const follow = ["", "stay", "follow"] as const;

const schema = z.object({
  name: name("The set's name", 120),
  scale,
  follow: z.enum(follow),
  tableMetres: figure("m", { name: "The distance", least: 0.1, most: 10 }),
  handling: z.enum(handlings),
  targetSheen: z.enum(sheens),
  dueDate: z
    .string()
    .trim()
    .refine((t) => t === "" || /^\d{4}-\d{2}-\d{2}$/.test(t), "Write the day as 2026-12-12."),
  reserveMl: figure("ml", { name: "The reserve", least: 0, most: 100 }),
});

/** Everything about a set that is not a design. */
export function SetFacts({ sheet, onClose }: { sheet: Schema["SetSheet"]; onClose: () => void }) {
  const [send] = useWrite("plan");
  const begin = {
    name: sheet.name,
    scale: `1:${sheet.scale}`,
    follow: "" as (typeof follow)[number],
    tableMetres: sayFigure(sheet.tableMetres, "m"),
    handling: sheet.handling,
    targetSheen: sheet.targetSheen,
    dueDate: sheet.dueDate ?? "",
    reserveMl: sayFigure(sheet.reserveMl, "ml"),
  };
  const { form, submit, busy, refused, restored, startOver } = useForm({
    draft: `set ${sheet.id}`,
    schema,
    version: sheet.version,
    begin,
    fieldOf: (field) => (field === "measuresFollow" ? "follow" : field),
    send: async (values, from) => {
      const { follow, dueDate, ...rest } = changes(schema.parse(begin), values);
      await send((headers) =>
        api.PUT("/api/sets/{setId}", {
          headers,
          params: { path: { setId: sheet.id } },
          body: {
            ...none,
            ...rest,
            measuresFollow: follow === undefined || follow === "" ? null : follow === "follow",
            dueDate: dueDate || null,
            clear: dueDate === "" ? ["dueDate"] : null,
            version: from,
          },
        }),
      );
      onClose();
    },
  });
  const { control } = form;
  const typed = readScale(useWatch({ control, name: "scale" }));
  const to = typed && "value" in typed ? typed.value : sheet.scale;
  const zones = sheet.designs.flatMap((d) => d.zones).filter((z) => !z.putAwayAt);
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Facts of ${sheet.name}`}
      says="Only what you change is stored; Ctrl Z takes it back."
    >
      <form noValidate className="grid gap-3 sm:grid-cols-2" onSubmit={(e) => void submit(e)}>
        <div className="sm:col-span-2">
          <Restored shown={restored} onOver={() => startOver()} />
          <Typed control={control} name="name" label="Name" />
        </div>
        <Typed control={control} name="scale" label="Scale" placeholder="1:56" />
        <Typed control={control} name="tableMetres" label="Seen from" inputMode="decimal" />
        {to !== sheet.scale && to > 0 && (
          <div className="sm:col-span-2">
            <Chosen
              control={control}
              name="follow"
              label="The measures"
              placeholder="choose"
              options={[
                { value: "stay", text: `stay as they are: the pieces are what they are` },
                {
                  value: "follow",
                  text: `follow: lengths × ${ratio(sheet.scale / to)}, areas × ${ratio((sheet.scale / to) ** 2)}`,
                },
              ]}
            />
            <p className="mt-1 text-xs text-soft">
              {plural(zones.length, "zone")} {zones.length === 1 ? "keeps its" : "keep their"} size in cm²
              unless the measures follow; at 1:{to} a stone of 200 mm is {Math.round(2000 / to) / 10} mm.
            </p>
          </div>
        )}
        <Chosen control={control} name="handling" label="Handling" options={handlings} />
        <Chosen control={control} name="targetSheen" label="Final sheen" options={sheens} />
        <Typed control={control} name="dueDate" label="Wanted by" type="date" />
        <Typed control={control} name="reserveMl" label="Kept back of each colour" inputMode="decimal" />
        {refused && (
          <Alert title="Not stored." className="sm:col-span-2">
            {refused.message} What you typed is kept.
          </Alert>
        )}
        <div className="flex gap-2 sm:col-span-2">
          <Button type="submit" tone="go" disabled={busy}>
            Store it
          </Button>
          <Button onClick={onClose}>Leave as it is</Button>
        </div>
      </form>
    </Dialog>
  );
}

const ratio = (n: number) => n.toFixed(2).replace(/\.?0+$/, "");

const none: Omit<Schema["SetIn"], "version"> = {
  name: null,
  scale: null,
  measuresFollow: null,
  tableMetres: null,
  handling: null,
  targetSheen: null,
  dueDate: null,
  reserveMl: null,
  rank: null,
  clear: null,
};
