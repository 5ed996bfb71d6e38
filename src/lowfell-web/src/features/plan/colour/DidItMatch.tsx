import { write } from "../../../api/writes";
import { useQueryClient } from "@tanstack/react-query";
import { memo, useState } from "react";
import { Link } from "react-router";
import { api, Refused, type Schema } from "../../../api/client";
import { Button } from "../../../kit/Button";
import { ColourField } from "../../../kit/ColourField";
import { Choice } from "../../../kit/Field";
import { Swatch } from "../../../kit/Swatch";
import { useSay } from "../../../kit/Toast";
import type { ColourProps } from "./props";
import { differs } from "../../../shared/words";

const positions = ["raised", "field", "recess"] as const;

/** What was really seen after a layer tunes its material for this workshop: part of the way, and never for good. */
export const DidItMatch = memo(DidItMatchOf);

type Props = Pick<ColourProps, "sheet" | "workshopId" | "byId" | "now" | "onReread"> & {
  layerId: string;
  materialId: string;
};

function DidItMatchOf({ sheet, workshopId, layerId, materialId, byId, now, onReread }: Props) {
  const [observed, setObserved] = useState("");
  const [position, setPosition] = useState<(typeof positions)[number]>("field");
  const [told, setTold] = useState<Schema["ObserveReading"] | null>(null);
  const [fault, setFault] = useState<string>();
  const queries = useQueryClient();
  const say = useSay();
  const main = byId.get(materialId);
  if (!main || main.opticsSource === "clear") return null;

  const ask = async (colour: string, where: (typeof positions)[number], store: boolean) => {
    setFault(undefined);
    try {
      // Storing or not, it goes the same way: only what is stored leaves a receipt.
      const answer = await write((headers) =>
        api.POST("/api/plan/zones/{zoneId}/observe", {
          params: { path: { zoneId: sheet.zone.id } },
          headers,
          body: { layers: now(), layerId, position: where, observed: colour, store },
        }),
      );
      setTold(store ? null : answer);
      if (!store) return;
      setObserved("");
      say(`${answer.materialName} was tuned. Its history on the shelf takes it back.`);
      await queries.invalidateQueries({ queryKey: ["materials"] });
      onReread();
    } catch (error) {
      setTold(null);
      if (error instanceof Refused) setFault(error.message);
    }
  };
  const factor = (before: number, after: number) =>
    Math.abs(after / before - 1) < 0.005
      ? "stays"
      : `${after > before ? "+" : "−"}${Math.round(Math.abs(after / before - 1) * 100)} %`;

  return (
    <section aria-labelledby="match">
      <h2 id="match" className="mb-1 text-xs text-soft">
        Did it match?
      </h2>
      <div className="grid gap-1.5">
        <ColourField
          label="Seen after this layer"
          value={observed}
          fault={fault}
          onChange={(colour) => {
            setObserved(colour);
            if (/^#[0-9a-f]{6}$/i.test(colour)) void ask(colour, position, false);
            else setTold(null);
          }}
        />
        <Choice
          label="On the"
          value={position}
          options={positions}
          onChange={(where) => {
            setPosition(where);
            if (told) void ask(observed, where, false);
          }}
        />
      </div>
      {told && (
        <div className="mt-1.5 text-xs" role="status">
          <div className="grid grid-cols-3 gap-px" aria-hidden="true">
            <Swatch colour={told.predicted} name="predicted" className="h-7 w-full" />
            <Swatch colour={observed} name="seen" className="h-7 w-full" />
            <Swatch colour={told.predictedAfter} name="predicted once tuned" className="h-7 w-full" />
          </div>
          <div className="grid grid-cols-3 text-soft" aria-hidden="true">
            <span>predicted</span>
            <span className="text-center">seen</span>
            <span className="text-right">once tuned</span>
          </div>
          <p className="mt-1">
            <b>{differs(told.difference)}</b>: {told.words}. Tuned, {differs(told.differenceAfter)} would be
            left. {told.materialName}: hiding {factor(told.hidingBefore, told.hidingAfter)}, tint{" "}
            {factor(told.tintBefore, told.tintAfter)}.
          </p>
          <div className="mt-1 flex items-center gap-2">
            <Button tone="plain" onClick={() => void ask(observed, position, true)}>
              Tune {told.materialName}
            </Button>
            <Link className="underline" to={`/shelf/${workshopId}/${told.materialId}`}>
              History
            </Link>
          </div>
        </div>
      )}
    </section>
  );
}
