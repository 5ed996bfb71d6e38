import type { Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Choice, TextField } from "../../kit/Field";
import type { Preset } from "./presets";

type Zone = {
  name: string;
  areaCm2: string;
  relief: Schema["Relief"];
  edgeMm: number;
  jointMm: number;
  up: number;
  targetSheen: Schema["Sheen"] | null;
  ground: string;
};

export type DesignDraft = {
  kind: string;
  name: string;
  pieces: string;
  substrate: Schema["Substrate"];
  silhouette: Schema["Silhouette"];
  zones: Zone[];
};

const substrates = [
  "printed plastic",
  "moulded plastic",
  "resin",
  "metal",
  "board",
  "foam",
  "plaster",
  "wood",
] as const;

export const draftOf = (p: Preset): DesignDraft => ({
  kind: p.kind,
  name: p.name,
  pieces: String(p.pieces),
  substrate: p.substrate,
  silhouette: p.silhouette,
  zones: p.zones.map((z) => ({ ...z, areaCm2: String(z.areaCm2), targetSheen: z.targetSheen ?? null })),
});

const number = (text: string) => {
  const n = Number(text.replace(",", "."));
  return text.trim() === "" || !Number.isFinite(n) ? null : n;
};

export const toBody = (d: DesignDraft): Schema["NewDesignIn"] => ({
  name: d.name,
  pieces: number(d.pieces) === null ? null : Math.trunc(number(d.pieces)!),
  substrate: d.substrate,
  silhouette: d.silhouette,
  zones: d.zones.map((z) => ({ ...z, areaCm2: number(z.areaCm2) })),
});

/** Name, number, material and zones of a design. */
export function DesignForm(props: {
  draft: DesignDraft;
  onChange: (d: DesignDraft) => void;
  faults: { field: string; message: string }[];
  prefix: string;
  part?: "design" | "zones";
}) {
  const { draft, onChange, faults, prefix, part } = props;
  const fault = (field: string) => faults.find((f) => f.field === prefix + field)?.message;
  const zone = (i: number, change: Partial<Zone>) =>
    onChange({ ...draft, zones: draft.zones.map((z, k) => (k === i ? { ...z, ...change } : z)) });
  return (
    <>
      {part !== "zones" && (
        <div className="grid grid-cols-[1fr_90px_1fr] gap-3">
          <TextField
            label="Name of the design"
            value={draft.name}
            fault={fault("name")}
            onChange={(e) => onChange({ ...draft, name: e.target.value })}
          />
          <TextField
            label="How many"
            inputMode="numeric"
            value={draft.pieces}
            fault={fault("pieces")}
            onChange={(e) => onChange({ ...draft, pieces: e.target.value })}
          />
          <Choice
            label="Made of"
            value={draft.substrate}
            options={substrates}
            onChange={(substrate) => onChange({ ...draft, substrate })}
          />
        </div>
      )}
      {part !== "design" && (
        <fieldset className={part ? "" : "mt-4"}>
          <legend className="text-sm font-semibold">Zones: surfaces that get layers of their own</legend>
          {fault("zones") && <p className="text-xs text-signal">▲ {fault("zones")}</p>}
          {draft.zones.map((z, i) => (
            <div key={i} className="mt-1.5 grid grid-cols-[1fr_110px_120px_auto] items-end gap-2">
              <TextField
                label={`Zone ${i + 1}`}
                hideLabel={i > 0}
                value={z.name}
                fault={fault(`zones[${i}].name`)}
                onChange={(e) => zone(i, { name: e.target.value })}
              />
              <TextField
                label={i > 0 ? `Area of zone ${i + 1}, cm²` : "Area, cm²"}
                hideLabel={i > 0}
                inputMode="decimal"
                value={z.areaCm2}
                fault={fault(`zones[${i}].areaCm2`)}
                onChange={(e) => zone(i, { areaCm2: e.target.value })}
              />
              <Choice
                label={i > 0 ? `Relief of zone ${i + 1}` : "Relief"}
                hideLabel={i > 0}
                value={z.relief}
                options={["smooth", "light", "deep"] as const}
                onChange={(relief) => zone(i, { relief })}
              />
              <Button
                aria-label={`Take out zone ${i + 1}`}
                disabled={draft.zones.length === 1}
                onClick={() => onChange({ ...draft, zones: draft.zones.filter((_, k) => k !== i) })}
              >
                ✕
              </Button>
            </div>
          ))}
          <Button
            className="mt-2"
            onClick={() =>
              onChange({
                ...draft,
                zones: [
                  ...draft.zones,
                  {
                    name: "",
                    areaCm2: "20",
                    relief: "light",
                    edgeMm: 100,
                    jointMm: 50,
                    up: 0,
                    targetSheen: null,
                    ground: draft.zones[0]?.ground ?? "",
                  },
                ],
              })
            }
          >
            Another zone
          </Button>
        </fieldset>
      )}
    </>
  );
}
