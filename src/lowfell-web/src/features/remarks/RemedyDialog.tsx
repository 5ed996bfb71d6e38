import { write } from "../../api/writes";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { plural } from "../../kit/severity";
import { minutes } from "../../shared/words";
import { ChangeWords } from "../../shared/ChangeWords";
import { Alert } from "../../kit/Alert";

/** One remedy over the whole set: every treatment it changes, with what that does, before anything is stored. */
export function RemedyDialog(props: {
  setId: string;
  rule: string;
  title: string;
  remedy: Schema["GroupRemedy"];
  onClose: () => void;
  onDone: (answer: Schema["SetRemedyReading"]) => void;
}) {
  const { setId, rule, remedy } = props;
  const [fault, setFault] = useState("");
  const [busy, setBusy] = useState(false);
  const ask = (body: Schema["SetRemedyIn"]) =>
    write((headers) =>
      api.POST("/api/plan/sets/{setId}/remedies", { params: { path: { setId } }, headers, body }),
    );
  const look = useQuery({
    queryKey: ["set-remedy", setId, rule, remedy.id],
    gcTime: 0,
    queryFn: () => ask({ rule, remedy: remedy.id, store: false, versions: null }),
  });
  const store = async () => {
    if (!look.data) return;
    setBusy(true);
    try {
      const versions = look.data.changes.map((c) => ({ treatmentId: c.treatmentId, version: c.version }));
      const stored = await ask({ rule, remedy: remedy.id, store: true, versions });
      // What was shown, at the versions it has now.
      const now = new Map((stored.versions ?? []).map((v) => [v.treatmentId, v.version]));
      const shown = look.data.changes.map((c) => ({ ...c, version: now.get(c.treatmentId) ?? c.version }));
      props.onDone({ ...look.data, changes: shown });
    } catch (error) {
      if (!(error instanceof Refused)) return;
      setFault(error.message);
      void look.refetch();
    } finally {
      setBusy(false);
    }
  };
  const changes = look.data?.changes ?? [];
  const total = Math.round(look.data?.minutes ?? 0);
  return (
    <Dialog
      open
      wide
      onClose={props.onClose}
      title={remedy.text}
      says={`Wherever it helps: ${props.title.toLowerCase()}.`}
    >
      {look.isPending && <p className="text-soft">Working it out for the whole set…</p>}
      {(look.error ?? fault) && <Alert>{fault || look.error?.message}</Alert>}
      {look.data && changes.length === 0 && <p>There is nothing left that it would help.</p>}
      {changes.length > 0 && (
        <>
          <p className="mb-2 text-xs">
            <b>{plural(new Set(changes.map((c) => c.treatmentId)).size, "treatment")}</b>,{" "}
            {total === 0
              ? "no work more or less"
              : total > 0
                ? `${minutes(total)} more work`
                : `${minutes(-total)} saved`}{" "}
            in all (an estimate).
          </p>
          <ul aria-label="Treatments it changes" tabIndex={0} className="max-h-[48vh] overflow-y-auto">
            {changes.map((c) => (
              <li
                key={`${c.treatmentId} ${c.zones.join()}`}
                className="grid grid-cols-1 sm:grid-cols-[190px_1fr] gap-4 border-t border-line py-2"
              >
                <div className="text-xs">
                  <b className="text-sm">{c.treatment}</b>
                  <span className="block text-soft">{c.zones.join(" · ")}</span>
                  {c.applied > 1 && <span className="block">{c.applied} times</span>}
                </div>
                <ChangeWords change={c.change} />
              </li>
            ))}
          </ul>
        </>
      )}
      {look.data && look.data.leftOut.length > 0 && (
        <p className="mt-2 text-xs">
          Left out, since it would bring a stop or a caution elsewhere: {look.data.leftOut.join(" · ")}.
        </p>
      )}
      <div className="mt-4 flex gap-2">
        <Button tone="go" disabled={busy || changes.length === 0} onClick={() => void store()}>
          {busy ? "Storing…" : "Do it everywhere"}
        </Button>
        <Button onClick={props.onClose}>Leave as it is</Button>
      </div>
    </Dialog>
  );
}
