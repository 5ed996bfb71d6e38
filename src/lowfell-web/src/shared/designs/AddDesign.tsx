import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { useWatch } from "react-hook-form";
import { useNavigate } from "react-router";
import { api, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { z } from "../../kit/form/checks";
import { Restored } from "../../kit/form/fields";
import { pathOf, useForm } from "../../kit/form/useForm";
import { changeKind, designSchema, draftOf, toBody, type DesignDraft } from "./design";
import { DesignFields } from "./DesignFields";
import { Kinds } from "./Kinds";
import { presetsQuery, treatmentsQuery } from "./presets";
import { ZoneFields } from "./ZoneFields";

const schema = z.object({ design: designSchema });

/** Adds a design to the open set, starting from a kind of piece. */
export default function AddDesign(props: {
  setId: string;
  workshopId: string;
  onClose: () => void;
  /** Where to go from there; to its first zone where left out. */
  onMade?: () => void;
}) {
  const { data: presets } = useQuery(presetsQuery);
  return (
    <Dialog
      open
      wide
      onClose={props.onClose}
      title="Add a design"
      says="Start from the kind of piece that is nearest; every figure can be changed. What you type is kept until it is added."
    >
      {presets && <Adding {...props} presets={presets} />}
    </Dialog>
  );
}

function Adding(props: {
  setId: string;
  workshopId: string;
  presets: Schema["DesignPreset"][];
  onClose: () => void;
  onMade?: () => void;
}) {
  const { setId, presets, onClose, onMade } = props;
  const navigate = useNavigate();
  const { data: treatments } = useQuery(treatmentsQuery(props.workshopId));
  const typed = useRef<Record<string, DesignDraft>>({});
  const [send] = useWrite("plan", "shelf");
  const { form, submit, busy, refused, restored, startOver } = useForm({
    draft: `design ${setId}`,
    schema,
    begin: { design: draftOf(presets[0]!) },
    fieldOf: (field) => `design.${pathOf(field)}`,
    send: async ({ design }) => {
      const made = await send((headers) =>
        api.POST("/api/plan/sets/{setId}/designs", {
          headers,
          params: { path: { setId } },
          body: toBody(design),
        }),
      );
      onClose();
      if (onMade) onMade();
      else void navigate(`/plan/${setId}/${made.firstZoneId}`);
    },
  });
  const { control } = form;
  const [kind, name] = useWatch({ control, name: ["design.kind", "design.name"] });
  return (
    <form noValidate onSubmit={(e) => void submit(e)}>
      <Restored shown={restored} onOver={() => startOver()} />
      <Kinds
        presets={presets}
        chosen={kind}
        onChoose={(to) => {
          const now = form.getValues("design");
          typed.current[now.kind] = now;
          form.setValue("design", changeKind(now, presets, to, typed.current));
        }}
      />
      <div className="mt-4">
        <DesignFields control={control} at="design." />
      </div>
      <h3 className="mt-4 mb-2 text-sm font-semibold">Zones: surfaces that get layers of their own</h3>
      <ZoneFields control={control} treatments={treatments ?? []} />
      {refused && <Alert className="mt-3">{refused.message}</Alert>}
      <div className="mt-4 flex gap-2">
        <Button type="submit" tone="go" disabled={busy}>
          Add {name || "design"}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
