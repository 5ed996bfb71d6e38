import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice } from "../../kit/Field";
import { plural } from "../../kit/severity";
import { treatmentsQuery } from "../../shared/designs/presets";
import { useChange } from "../../shared/useChange";

/** What the zone is treated with, and plainly who else is: an edit below is an edit for all of them. */
export function TreatmentLine(props: {
  sheet: Schema["ZoneSheet"];
  workshopId: string;
  onSettled: () => Promise<void>;
}) {
  const { sheet, workshopId } = props;
  const [changing, setChanging] = useState(false);
  const others = sheet.sharedWith;
  return (
    <p className="mt-0.5 flex flex-wrap items-baseline gap-x-2 text-xs" data-treatment={sheet.treatmentId}>
      <Link
        className="inline-flex min-h-6 items-center underline"
        to={`/treatments/${workshopId}/${sheet.treatmentId}`}
      >
        {sheet.treatmentName}
      </Link>
      {sheet.surface && <span>its surface {sheet.surface}</span>}
      {others.length > 0 && (
        <b className="font-semibold" title={others.join("\n")}>
          shared by {plural(others.length + 1, "zone")}: also {others[0]}
          {others.length > 1 && ` and ${others.length - 1} more`}
        </b>
      )}
      <button
        type="button"
        className="min-h-6 underline"
        aria-haspopup="dialog"
        onClick={() => setChanging(true)}
      >
        Another treatment…
      </button>
      {changing && <Another {...props} onClose={() => setChanging(false)} />}
    </p>
  );
}

/** Gives the zone a treatment of the library, or one of its own. */
function Another(props: {
  sheet: Schema["ZoneSheet"];
  workshopId: string;
  onSettled: () => Promise<void>;
  onClose: () => void;
}) {
  const { sheet, workshopId, onSettled, onClose } = props;
  const treatments = useQuery(treatmentsQuery(workshopId));
  const [change, busy] = useChange(workshopId);
  const [chosen, setChosen] = useState("");
  const zoneId = sheet.zone.id;
  const others = sheet.sharedWith.length;
  return (
    <Dialog
      open
      onClose={onClose}
      title={`The treatment of ${sheet.zone.name}`}
      says="A treatment can be laid on many zones of many sets; an edit is then for all of them. Work that was done keeps to what it was done by."
    >
      <Choice
        label="Take another from the library"
        value={chosen}
        placeholder="type a name"
        options={(treatments.data ?? [])
          .filter((t) => t.id !== sheet.treatmentId)
          .map((t) => ({ value: t.id, text: `${t.name}, ${plural(t.layers, "layer")}` }))}
        onChange={setChosen}
      />
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          tone="go"
          disabled={busy || !chosen}
          onClick={() =>
            void onSettled()
              .then(() =>
                change("The zone has another treatment.", (headers) =>
                  api.POST("/api/zones/{zoneId}/link", {
                    headers,
                    params: { path: { zoneId } },
                    body: { version: sheet.zone.version, treatmentId: chosen },
                  }),
                ),
              )
              .then((done) => done && onClose())
          }
        >
          Give it to the zone
        </Button>
        {(others > 0 || sheet.surface) && (
          <Button
            disabled={busy}
            onClick={() =>
              void onSettled()
                .then(() =>
                  change(`${sheet.zone.name} has a treatment of its own now.`, (headers) =>
                    api.POST("/api/zones/{zoneId}/part", {
                      headers,
                      params: { path: { zoneId } },
                      body: { name: null, layers: null },
                    }),
                  ),
                )
                .then((done) => done && onClose())
            }
          >
            {others > 0
              ? `Part it from the other ${plural(others, "zone")}`
              : `Part it from the rest of ${sheet.treatmentName}`}
          </Button>
        )}
        <Button onClick={onClose}>Leave as it is</Button>
      </div>
    </Dialog>
  );
}
