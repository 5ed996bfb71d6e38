import { useWatch } from "react-hook-form";
import { api, type Schema } from "../../api/client";
import { write } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { figure, maybe, z } from "../../kit/form/checks";
import { Chosen, Typed } from "../../kit/form/fields";
import { readFigure, sayFigure } from "../../kit/form/figures";
import { useForm } from "../../kit/form/useForm";
import { useSay } from "../../kit/Toast";
import { ScaleGrams } from "../../shared/ScaleGrams";

const measures = ["ml", "grams"] as const;

const schema = z
  .object({
    drops: figure("drops", { name: "The count", least: 1, most: 1000, whole: true }),
    amount: z.string(),
    unit: z.enum(measures),
    densityGPerMl: maybe("g/ml", { name: "The weight", least: 0.3, most: 8 }),
  })
  .transform(({ amount, ...rest }, ctx) => {
    const read = readFigure(amount, rest.unit === "ml" ? "ml" : "g");
    const why = !read
      ? "Say what they come to."
      : "fault" in read
        ? read.fault
        : read.value <= 0
          ? "Drops come to something."
          : null;
    if (why) ctx.addIssue({ code: "custom", path: ["amount"], message: why });
    return { ...rest, amount: read && "value" in read ? read.value : 0 };
  });

/** Twenty drops counted into a syringe or onto a scale tell how large one is. */
export function BottleDialog(props: {
  workshopId: string;
  material: Schema["MaterialCard"];
  onClose: () => void;
  onDone: () => void;
}) {
  const { material } = props;
  const say = useSay();
  const { form, submit, busy, refused } = useForm({
    schema,
    begin: {
      drops: "20",
      unit: "ml" as (typeof measures)[number],
      amount: "",
      densityGPerMl: sayFigure(material.densityGPerMl, "g/ml"),
    },
    fieldOf: (field) => (field === "ml" || field === "grams" ? "amount" : field),
    send: async ({ drops, unit, amount, densityGPerMl }) => {
      const found = await write((headers) =>
        api.PUT("/api/shelf/materials/{id}/bottle", {
          headers,
          params: { path: { id: material.id } },
          body: {
            version: material.version,
            drops,
            ml: unit === "ml" ? amount : null,
            grams: unit === "grams" ? amount : null,
            densityGPerMl,
          },
        }),
      );
      say(`A drop of ${material.name} is ${found.dropMl} ml, ± ${found.doubtMl}.`);
      props.onDone();
      props.onClose();
    },
  });
  const { control } = form;
  const unit = useWatch({ control, name: "unit" });
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`The drop of ${material.name}`}
      says="Hold the bottle as you always do, count drops into a syringe or onto a scale, and write down what they come to."
    >
      <form
        className="grid grid-cols-2 items-start gap-2 sm:grid-cols-4"
        noValidate
        onSubmit={(e) => void submit(e)}
      >
        <Typed control={control} name="drops" label="Drops counted" inputMode="numeric" />
        <Typed
          control={control}
          name="amount"
          label={unit === "ml" ? "They fill" : "They weigh"}
          placeholder={unit === "ml" ? "ml" : "g"}
          inputMode="decimal"
        />
        <Chosen control={control} name="unit" label="Measured in" options={measures} />
        <Typed
          control={control}
          name="densityGPerMl"
          label="Weighs, g/ml"
          inputMode="decimal"
          placeholder="usual"
        />
        <div className="col-span-full">
          <ScaleGrams
            workshopId={props.workshopId}
            onUse={(grams) => {
              form.setValue("unit", "grams", { shouldDirty: true });
              form.setValue("amount", sayFigure(grams, "g"), { shouldDirty: true });
            }}
          />
        </div>
        {refused && <Alert className="col-span-full">{refused.message}</Alert>}
        <div className="col-span-full mt-2 flex gap-2">
          <Button type="submit" tone="go" disabled={busy}>
            Keep it
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
