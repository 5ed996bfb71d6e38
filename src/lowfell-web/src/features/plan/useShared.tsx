import { useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { api, Refused, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { plural } from "../../kit/severity";
import { useSay } from "../../kit/Toast";
import type { Layer } from "./stack";

type Sheet = Schema["ZoneSheet"];
type Edit = (next: Layer[], together?: string | null, moves?: boolean) => void;
/** What comes after an edit waits with it. */
type AskedEdit = (next: Layer[], together?: string | null, moves?: boolean, then?: () => void) => void;

// For which treatments it was said on this page that all zones follow.
const forAll = new Set<string>();
const NEVER = "lowfell.shared";

/**
 * The first edit of a stack that several zones share waits until it is said whom it is for: all of them, or this zone alone, which then
 * goes on with a treatment of its own.
 */
export function useShared(
  sheet: Sheet,
  stack: { edit: Edit; settled: () => Promise<void> },
): { edit: AskedEdit; question: React.ReactNode } {
  const [asked, setAsked] = useState<{ layers: Layer[]; then?: () => void } | null>(null);
  const [never, setNever] = useState(false);
  const [send, busy] = useWrite("plan");
  const queries = useQueryClient();
  const say = useSay();
  const others = sheet.sharedWith;
  const isOpen = () =>
    others.length > 0 && !forAll.has(sheet.treatmentId) && localStorage.getItem(NEVER) !== "all";
  const edit: AskedEdit = (next, together = null, moves = false, then) => {
    if (isOpen()) return setAsked({ layers: next, then });
    stack.edit(next, together, moves);
    then?.();
  };
  const all = () => {
    forAll.add(sheet.treatmentId);
    if (never) localStorage.setItem(NEVER, "all");
    if (asked) stack.edit(asked.layers);
    setAsked(null);
    asked?.then?.();
  };
  const part = async () => {
    try {
      await stack.settled();
      await send((headers) =>
        api.POST("/api/zones/{zoneId}/part", {
          headers,
          params: { path: { zoneId: sheet.zone.id } },
          body: { name: null, layers: asked?.layers ?? null },
        }),
      );
      setAsked(null);
      say(`${sheet.zone.name} on ${sheet.zone.designName} has a treatment of its own now.`);
      await queries.invalidateQueries({ queryKey: ["zone", sheet.zone.id] });
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      say(error.message, true);
    }
  };
  const question = asked && (
    <Dialog
      open
      onClose={() => setAsked(null)}
      title="Whom is this for?"
      says={`${sheet.treatmentName} is laid on ${plural(others.length + 1, "zone")}: this one, and ${others.slice(0, 3).join("; ")}${others.length > 3 ? ` and ${others.length - 3} more` : ""}.`}
    >
      <div className="grid gap-2">
        <Button tone="go" autoFocus className="justify-self-start" disabled={busy} onClick={all}>
          All {others.length + 1} zones change with it
        </Button>
        <Button tone="plain" className="justify-self-start" disabled={busy} onClick={() => void part()}>
          Only {sheet.zone.name} on {sheet.zone.designName}: part it from the rest
        </Button>
        <Button className="justify-self-start" onClick={() => setAsked(null)}>
          Leave it as it was
        </Button>
        <label className="mt-1 flex min-h-6 items-center gap-1.5 text-xs">
          <input type="checkbox" checked={never} onChange={(e) => setNever(e.target.checked)} />
          Always all of them; do not ask again on this device
        </label>
      </div>
    </Dialog>
  );
  return { edit, question };
}
