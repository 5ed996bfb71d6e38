import { write } from "../../../api/writes";
import { useQueryClient } from "@tanstack/react-query";
import { memo, useState } from "react";
import { api, Refused, type Schema } from "../../../api/client";
import { Button } from "../../../kit/Button";
import { ColourField } from "../../../kit/ColourField";
import { Choice } from "../../../kit/Field";
import { same } from "../stack";
import type { ColourProps } from "./props";
import { differs } from "../../../shared/words";

const positions = ["raised", "field", "recess"] as const;

/** The colour wanted on the finished zone, beside the one that is predicted. */
export const Target = memo(
  TargetOf,
  (a, b) => a.sheet === b.sheet && same(a.target, b.target) && a.ends?.[where(a)] === b.ends?.[where(b)],
);

type Props = Pick<ColourProps, "sheet" | "onReread"> & {
  target: Schema["TargetReading"] | null;
  ends: Schema["LayerReading"] | undefined;
};
const where = ({ sheet }: Props) => sheet.zone.targetPosition ?? "field";

function TargetOf({ sheet, target, ends: last, onReread }: Props) {
  const { zone } = sheet;
  const queries = useQueryClient();
  const [typed, setTyped] = useState(zone.targetColour ?? "");
  const [seen, setSeen] = useState(zone.targetColour);
  const [fault, setFault] = useState<string>();
  if (seen !== zone.targetColour) {
    setSeen(zone.targetColour);
    setTyped(zone.targetColour ?? "");
  }
  const position = zone.targetPosition ?? "field";

  const keep = async (colour: string, where: (typeof positions)[number]) => {
    setFault(undefined);
    try {
      const now = await write((headers) =>
        api.PUT("/api/plan/zones/{zoneId}", {
          headers,
          params: { path: { zoneId: zone.id } },
          body: { ...nothing, version: zone.version, targetColour: colour, targetPosition: where },
        }),
      );
      queries.setQueryData(["zone", zone.id], (old: typeof sheet | undefined) =>
        old ? { ...old, zone: now.zone } : now,
      );
      onReread();
    } catch (error) {
      if (error instanceof Refused) setFault(error.message);
    }
  };

  return (
    <section aria-labelledby="target">
      <h2 id="target" className="mb-1 text-xs text-soft">
        Where it should end
      </h2>
      {target ? (
        <figure className="mb-2" data-target={target.predicted}>
          <svg
            viewBox="0 0 240 64"
            preserveAspectRatio="none"
            className="block h-16 w-full"
            role="img"
            aria-label={`Wanted ${target.wanted}, predicted ${target.predicted} on the ${target.position}`}
          >
            <rect width="240" height="64" fill="var(--ground)" />
            <rect x="8" y="8" width="112" height="48" fill={target.wanted} />
            <rect x="120" y="8" width="112" height="48" fill={target.predicted} />
          </svg>
          <div className="mt-0.5 flex justify-between text-xs text-soft" aria-hidden="true">
            <span>wanted</span>
            <span>predicted, {target.position}</span>
          </div>
          <figcaption aria-live="polite" className="mt-0.5 text-sm">
            {target.met && target.difference >= 1 ? (
              <>
                <b>Met</b>: {differs(target.difference)}, no more than a hand varies
              </>
            ) : (
              <>
                <b>{differs(target.difference)}</b>: {target.words}
              </>
            )}
          </figcaption>
        </figure>
      ) : (
        <p className="mb-1.5 text-xs text-soft">
          {!last
            ? "Give the zone its layers first; then say here what colour it should end in."
            : `It ends ${last[position]} on the ${position}. Say what you want instead and Lowfell measures the way there.`}
        </p>
      )}
      <ColourField
        label="Wanted colour"
        value={typed}
        fault={fault}
        onChange={(colour) => {
          setTyped(colour);
          if (/^#[0-9a-f]{6}$/i.test(colour) && colour.toLowerCase() !== zone.targetColour)
            void keep(colour, position);
        }}
      />
      <div className="mt-1.5 grid grid-cols-2 items-end gap-1.5">
        <Choice
          label="On the"
          value={position}
          options={positions}
          onChange={(where) => {
            if (zone.targetColour) void keep(zone.targetColour, where);
          }}
        />
        {zone.targetColour && (
          <Button className="h-[30px]" onClick={() => void keep("", position)}>
            No target
          </Button>
        )}
      </div>
    </section>
  );
}

/** A change that leaves every measure as it is. */
const nothing = {
  name: null,
  areaCm2: null,
  relief: null,
  edgeMm: null,
  jointMm: null,
  up: null,
  side: null,
  down: null,
  raised: null,
  field: null,
  recess: null,
  targetSheen: null,
};
