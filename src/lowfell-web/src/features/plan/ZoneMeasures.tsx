import { write } from "../../api/writes";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import type { Sheet } from "./types";

const usual = { smooth: [0.06, 0.9, 0.04], light: [0.15, 0.7, 0.15], deep: [0.2, 0.58, 0.22] } as const;

/** A zone's measures: what quantities and colours are worked out from. */
export function ZoneMeasures({ sheet, onClose }: { sheet: Sheet; onClose: () => void }) {
  const queries = useQueryClient();
  const z = sheet.zone;
  const [form, setForm] = useState({
    name: z.name,
    areaCm2: String(z.areaCm2),
    relief: z.relief,
    edgeMm: String(z.edgeMm),
    jointMm: String(z.jointMm),
    up: String(z.up),
    cutEdge: z.cutEdge,
    beforeAssembly: z.beforeAssembly,
  });
  const [refused, setRefused] = useState<Refused | null>(null);
  const fault = (field: string) => refused?.refusal.errors.find((e) => e.field === field)?.message;
  const number = (text: string) => Number(text.replace(",", "."));
  const store = async () => {
    const reshaped = form.relief !== z.relief;
    const [raised, field, recess] = usual[form.relief];
    const up = number(form.up);
    try {
      const answer = await write((headers) =>
        api.PUT("/api/plan/zones/{zoneId}", {
          headers,
          params: { path: { zoneId: z.id } },
          body: {
            version: z.version,
            name: form.name,
            areaCm2: number(form.areaCm2),
            relief: form.relief,
            edgeMm: number(form.edgeMm),
            jointMm: number(form.jointMm),
            up,
            side: Math.max(0, 1 - up),
            down: 0,
            raised: reshaped ? raised : z.raised,
            field: reshaped ? field : z.field,
            recess: reshaped ? recess : z.recess,
            targetSheen: z.targetSheen,
            targetColour: null,
            targetPosition: null,
            cutEdge: form.cutEdge,
            beforeAssembly: form.beforeAssembly,
          },
        }),
      );
      queries.setQueryData(["zone", z.id], answer);
      await queries.invalidateQueries({ queryKey: ["overview"] });
      onClose();
    } catch (error) {
      if (error instanceof Refused) setRefused(error);
    }
  };
  const bind = (key: Exclude<keyof typeof form, "cutEdge" | "beforeAssembly">) => ({
    value: form[key],
    onChange: (e: { target: { value: string } }) => setForm({ ...form, [key]: e.target.value }),
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Measures of ${z.name}`}
      says={`${z.designName}, one piece of ${z.pieces}.`}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void store();
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <div className="col-span-2">
            <TextField label="Name" {...bind("name")} fault={fault("name")} />
          </div>
          <TextField
            label="Area, cm² a piece"
            inputMode="decimal"
            {...bind("areaCm2")}
            fault={fault("areaCm2")}
          />
          <Choice
            label="Relief"
            value={form.relief}
            options={["smooth", "light", "deep"] as const}
            onChange={(relief) => setForm({ ...form, relief })}
          />
          <TextField
            label="Edges, mm in all"
            inputMode="decimal"
            {...bind("edgeMm")}
            fault={fault("edgeMm")}
          />
          <TextField
            label="Joints, mm in all"
            inputMode="decimal"
            {...bind("jointMm")}
            fault={fault("jointMm")}
          />
          <TextField
            label="Share that faces up, 0 to 1"
            inputMode="decimal"
            {...bind("up")}
            fault={fault("up")}
          />
          <div className="col-span-2">
            {(
              [
                ["cutEdge", "It is itself a cut edge of board or plaster"],
                ["beforeAssembly", "A brush only reaches it before the piece is assembled"],
              ] as const
            ).map(([key, text]) => (
              <label key={key} className="flex min-h-6 items-center gap-1.5 text-xs">
                <input
                  type="checkbox"
                  checked={form[key]}
                  onChange={(e) => setForm({ ...form, [key]: e.target.checked })}
                />
                {text}
              </label>
            ))}
          </div>
        </div>
        {refused && (
          <p role="alert" className="mt-3 border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs">
            {refused.message}
          </p>
        )}
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go">
            Store measures
          </Button>
          <Button onClick={onClose}>Leave as it is</Button>
        </div>
      </form>
    </Dialog>
  );
}
