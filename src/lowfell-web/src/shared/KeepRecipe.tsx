import { useState } from "react";
import { api, Refused } from "../api/client";
import { turnAndSay } from "../api/undo";
import { useWrite } from "../api/writes";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { TextField } from "../kit/Field";
import { useSay } from "../kit/Toast";

type Part = { materialId: string; parts: number };

/** Keeps a mix under a name. */
export function KeepRecipe(props: { workshopId: string; parts: Part[]; begin: string; onClose: () => void }) {
  const { workshopId, parts, onClose } = props;
  const [name, setName] = useState(props.begin.slice(0, 120));
  const [fault, setFault] = useState("");
  const [send, busy] = useWrite("shelf", "plan");
  const say = useSay();
  const keep = async () => {
    try {
      await send((headers) =>
        api.POST("/api/workshops/{workshopId}/recipes", {
          headers,
          params: { path: { workshopId } },
          body: { version: null, name, note: null, parts },
        }),
      );
      say(`${name.trim()} is kept.`, false, {
        text: "Undo",
        run: () => void turnAndSay(workshopId, "undo", say),
      });
      onClose();
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setFault(error.message);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Keep it as a recipe"
      says="Under its name it can be put onto any layer, or into a jar, of this workshop."
    >
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          e.stopPropagation();
          void keep();
        }}
      >
        <TextField
          label="Name"
          maxLength={120}
          value={name}
          fault={fault}
          onChange={(e) => {
            setName(e.target.value);
            setFault("");
          }}
        />
        <div className="mt-3 flex gap-2">
          <Button type="submit" tone="go" disabled={busy}>
            Keep it
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </Dialog>
  );
}

/** A layer's paint and dilution as parts of one pot: 3 + 1 thinned 2 : 1 is 6 + 2 + 4. */
export function inParts(
  paint: readonly Part[],
  dilution: { thinnerId: string; paint: number; thinner: number } | null,
): Part[] {
  if (!dilution || dilution.thinner === 0) return [...paint];
  const all = paint.reduce((sum, p) => sum + p.parts, 0);
  return [
    ...paint.map((p) => ({ ...p, parts: tidy(p.parts * dilution.paint) })),
    { materialId: dilution.thinnerId, parts: tidy(all * dilution.thinner) },
  ];
}

const tidy = (n: number) => Math.round(n * 10_000) / 10_000;
