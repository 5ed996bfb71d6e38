import { write } from "../../api/writes";
import { useState } from "react";
import { api, Refused, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import { useSay } from "../../kit/Toast";
import { typed } from "./pots";

/** Twenty drops counted into a syringe or onto a scale tell how large one is. */
export function BottleDialog(props: {
  material: Schema["MaterialCard"];
  onClose: () => void;
  onDone: () => void;
}) {
  const { material } = props;
  const say = useSay();
  const [drops, setDrops] = useState("20");
  const [unit, setUnit] = useState<"ml" | "grams">("ml");
  const [amount, setAmount] = useState("");
  const [density, setDensity] = useState(
    material.densityGPerMl === null ? "" : String(material.densityGPerMl),
  );
  const [fault, setFault] = useState<Refused | null>(null);
  const faultOf = (...fields: string[]) =>
    fault?.refusal.errors.find((e) => fields.includes(e.field))?.message;
  const store = async () => {
    try {
      const found = await write((headers) =>
        api.PUT("/api/shelf/materials/{id}/bottle", {
          headers,
          params: { path: { id: material.id } },
          body: {
            version: material.version,
            drops: typed(drops),
            ml: unit === "ml" ? (typed(amount) ?? 0) : null,
            grams: unit === "grams" ? (typed(amount) ?? 0) : null,
            densityGPerMl: typed(density),
          },
        }),
      );
      say(`A drop of ${material.name} is ${found.dropMl} ml, ± ${found.doubtMl}.`);
      props.onDone();
      props.onClose();
    } catch (error) {
      if (error instanceof Refused) setFault(error);
    }
  };
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`The drop of ${material.name}`}
      says="Hold the bottle as you always do, count drops into a syringe or onto a scale, and write down what they come to."
    >
      <form
        className="grid grid-cols-4 items-start gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void store();
        }}
      >
        <TextField
          label="Drops counted"
          inputMode="numeric"
          value={drops}
          fault={faultOf("drops")}
          onChange={(e) => setDrops(e.target.value)}
        />
        <TextField
          label={unit === "ml" ? "They fill, ml" : "They weigh, g"}
          inputMode="decimal"
          value={amount}
          fault={faultOf("ml", "grams")}
          onChange={(e) => setAmount(e.target.value)}
        />
        <Choice label="Measured in" value={unit} options={["ml", "grams"] as const} onChange={setUnit} />
        <TextField
          label="Weighs, g/ml"
          inputMode="decimal"
          placeholder="usual"
          value={density}
          fault={faultOf("densityGPerMl")}
          onChange={(e) => setDensity(e.target.value)}
        />
        {fault && fault.refusal.errors.length === 0 && (
          <p
            role="alert"
            className="col-span-4 border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs"
          >
            {fault.message}
          </p>
        )}
        <div className="col-span-4 mt-2 flex gap-2">
          <Button type="submit" tone="go">
            Keep it
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
