import { useQueryClient } from "@tanstack/react-query";
import { api, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Chosen, Restored, Ticked, Typed } from "../../kit/form/fields";
import { useForm } from "../../kit/form/useForm";
import { reliefs, schema, toZone, typedOf } from "./measures";
import type { Sheet } from "./types";

/** A zone's measures: what quantities and colours are worked out from. */
export default function ZoneMeasures({ sheet, onClose }: { sheet: Sheet; onClose: () => void }) {
  const queries = useQueryClient();
  const zone = sheet.zone;
  const [send] = useWrite("plan");
  const { form, submit, busy, refused, restored, startOver, against } = useForm({
    draft: `measures ${zone.id}`,
    schema,
    version: zone.version,
    begin: typedOf(zone),
    send: async (values, from) => {
      const answer = await send((headers) =>
        api.PUT("/api/plan/zones/{zoneId}", {
          headers,
          params: { path: { zoneId: zone.id } },
          body: toZone(values, zone, from ?? zone.version),
        }),
      );
      queries.setQueryData(["zone", zone.id], answer);
      onClose();
    },
  });
  const { control } = form;
  const theirs =
    refused?.refusal.code === "changed-elsewhere"
      ? (refused.refusal.current as Schema["ZoneSheet"] | undefined)?.zone
      : undefined;
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Measures of ${zone.name}`}
      says={`${zone.designName}, one piece of ${zone.pieces}.`}
    >
      <form noValidate onSubmit={(e) => void submit(e)}>
        <Restored shown={restored} onOver={() => startOver()} />
        <div className="grid grid-cols-2 gap-3">
          <div className="col-span-2">
            <Typed control={control} name="name" label="Name" />
          </div>
          <Typed control={control} name="areaCm2" label="Area of a piece" inputMode="decimal" />
          <Chosen control={control} name="relief" label="Relief" options={reliefs} />
          <Typed control={control} name="edgeMm" label="Edges in all" inputMode="decimal" />
          <Typed control={control} name="jointMm" label="Joints in all" inputMode="decimal" />
          <div className="col-span-2 grid grid-cols-3 gap-3">
            <Typed control={control} name="up" label="Faces up" inputMode="decimal" />
            <Typed control={control} name="side" label="Sideways" inputMode="decimal" />
            <Typed control={control} name="down" label="Down" inputMode="decimal" />
          </div>
          <div className="col-span-2">
            <Ticked control={control} name="cutEdge" label="It is itself a cut edge of board or plaster" />
            <Ticked
              control={control}
              name="beforeAssembly"
              label="A brush only reaches it before the piece is assembled"
            />
          </div>
        </div>
        {refused && (
          <Alert title="Not stored." className="mt-3">
            {refused.message} What you typed is kept.
            {theirs && (
              <>
                <p className="mt-1">
                  Stored there: {theirs.name}, {theirs.areaCm2} cm², {theirs.relief}, edges {theirs.edgeMm}{" "}
                  mm, joints {theirs.jointMm} mm.
                </p>
                <div className="mt-1.5 flex gap-2">
                  <Button
                    tone="plain"
                    onClick={() => {
                      against(theirs.version);
                      void submit();
                    }}
                  >
                    Keep mine
                  </Button>
                  <Button
                    onClick={() => {
                      startOver(typedOf(theirs), theirs.version);
                    }}
                  >
                    Take theirs
                  </Button>
                </div>
              </>
            )}
          </Alert>
        )}
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go" disabled={busy}>
            Store measures
          </Button>
          <Button onClick={onClose}>Leave as it is</Button>
        </div>
      </form>
    </Dialog>
  );
}
