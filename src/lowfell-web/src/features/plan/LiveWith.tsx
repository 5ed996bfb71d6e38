import { write } from "../../api/writes";
import { useState } from "react";
import { api, Refused, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { TextField } from "../../kit/Field";

type Finding = Schema["FindingDto"];

/** Living with a remark, for a reason; it comes back when what it rests on changes. */
export function LiveWith(props: { zoneId: string; finding: Finding; disabled: boolean; onDone: () => void }) {
  const { finding } = props;
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState("");
  const [fault, setFault] = useState("");
  if (!open)
    return (
      <button
        type="button"
        data-live-with
        className="mt-1.5 min-h-6 text-soft underline decoration-dotted underline-offset-2 hover:text-ink disabled:opacity-50"
        disabled={props.disabled}
        onClick={() => setOpen(true)}
      >
        Live with it…
      </button>
    );
  const store = async () => {
    if (reason.trim() === "") return setFault("Say why, for the one who asks in a year.");
    try {
      await write((headers) =>
        api.POST("/api/plan/zones/{zoneId}/accepted", {
          headers,
          params: { path: { zoneId: props.zoneId } },
          body: { rule: finding.rule, layerId: finding.layers[0] ?? null, facts: finding.facts, reason },
        }),
      );
      setOpen(false);
      props.onDone();
    } catch (error) {
      if (error instanceof Refused) setFault(error.message);
    }
  };
  return (
    <form
      className="mt-1.5"
      onSubmit={(e) => {
        e.preventDefault();
        void store();
      }}
    >
      <TextField
        label="Why you live with it"
        autoFocus
        maxLength={500}
        value={reason}
        fault={fault || undefined}
        onChange={(e) => {
          setReason(e.target.value);
          setFault("");
        }}
        onKeyDown={(e) => e.key === "Escape" && setOpen(false)}
      />
      <div className="mt-1.5 flex gap-1.5">
        <Button type="submit" tone="plain">
          Live with it
        </Button>
        <Button onClick={() => setOpen(false)}>Not now</Button>
      </div>
    </form>
  );
}

/** A remark that is lived with: quiet, with its reason and the way back. */
export function Accepted(props: {
  finding: Finding;
  number: number;
  onSelect: () => void;
  onDone: () => void;
}) {
  const { finding } = props;
  const [fault, setFault] = useState("");
  const takeBack = async () => {
    try {
      await write((headers) =>
        api.POST("/api/plan/accepted/{id}/take-back", {
          headers,
          params: { path: { id: finding.accepted!.id } },
        }),
      );
      props.onDone();
    } catch (error) {
      if (error instanceof Refused) setFault(error.message);
    }
  };
  return (
    <li
      data-accepted={finding.rule}
      className="mb-1 border-l-[3px] border-line bg-card px-2.5 py-1 text-xs text-soft"
    >
      <button type="button" className="min-h-6 text-left" onClick={props.onSelect} data-tip={finding.why}>
        {props.number} · {finding.title}, lived with:{" "}
        <span className="text-ink">{finding.accepted!.reason}</span>
      </button>{" "}
      <button type="button" className="min-h-6 underline" onClick={() => void takeBack()}>
        Take back
      </button>
      {fault && <p className="text-signal">{fault}</p>}
    </li>
  );
}
