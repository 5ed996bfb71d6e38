import { useWrite } from "../../api/writes";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, Refused } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { DesignForm, draftOf, toBody, type DesignDraft } from "../start/DesignForm";
import { presetsQuery } from "../start/presets";

/** Adds a design to the open set, starting from a kind of piece. */
export function AddDesign({ setId, onClose }: { setId: string; onClose: () => void }) {
  const { data: presets } = useQuery(presetsQuery);
  const [draft, setDraft] = useState<DesignDraft | null>(null);
  const [refused, setRefused] = useState<Refused | null>(null);
  const navigate = useNavigate();
  const [send, busy] = useWrite("plan");
  const store = async () => {
    if (!draft) return;
    try {
      const made = await send((headers) =>
        api.POST("/api/plan/sets/{setId}/designs", {
          headers,
          params: { path: { setId } },
          body: toBody(draft),
        }),
      );
      onClose();
      void navigate(`/plan/${setId}/${made.firstZoneId}`);
    } catch (error) {
      if (error instanceof Refused) setRefused(error);
    }
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Add a design"
      says="Start from the kind of piece that is nearest; every figure can be changed."
    >
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
        {presets?.map((p) => (
          <button
            key={p.kind}
            type="button"
            aria-pressed={draft?.kind === p.kind}
            className={`border p-2 text-left ${draft?.kind === p.kind ? "border-tide bg-tide-wash" : "border-line bg-paper"}`}
            onClick={() => setDraft(draftOf(p))}
          >
            <b>{p.kind.charAt(0).toUpperCase() + p.kind.slice(1)}</b>
            <span className="block text-xs text-soft">{p.says}</span>
          </button>
        ))}
      </div>
      {draft && (
        <form
          className="mt-4"
          onSubmit={(e) => {
            e.preventDefault();
            void store();
          }}
        >
          <DesignForm draft={draft} onChange={setDraft} faults={refused?.refusal.errors ?? []} prefix="" />
          {refused && (
            <p role="alert" className="mt-3 border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs">
              {refused.message}
            </p>
          )}
          <div className="mt-4 flex gap-2">
            <Button type="submit" tone="go" disabled={busy}>
              Add {draft.name || "design"}
            </Button>
            <Button onClick={onClose}>Cancel</Button>
          </div>
        </form>
      )}
    </Dialog>
  );
}
