import { useEffect, useRef, useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { api, Refused, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { plural } from "../../kit/severity";
import { useSay } from "../../kit/Toast";
import { isTyping, whenTypingIsOver } from "../../kit/typing";
import { HeldStrip } from "./HeldStrip";
import { same, type Layer } from "./stack";

type Sheet = Schema["ZoneSheet"];
type Edit = (next: Layer[], together?: string | null, moves?: boolean) => void;
/** What comes after an edit waits with it. */
type AskedEdit = (next: Layer[], together?: string | null, moves?: boolean, then?: () => void) => void;

type Stack = {
  layers: Layer[];
  current: () => Layer[];
  edit: Edit;
  settled: () => Promise<void>;
  held: boolean;
  isUnstored: () => boolean;
  hold: () => void;
  release: (drop?: boolean) => void;
};

// For which treatments it was said on this page that all zones follow.
const forAll = new Set<string>();
const NEVER = "lowfell.shared";

const isDecided = (sheet: Sheet) =>
  sheet.sharedWith.length === 0 || forAll.has(sheet.treatmentId) || localStorage.getItem(NEVER) === "all";

/**
 * The first edit of a stack that several zones share waits until it is said whom it is for: all of them, or this zone alone, which then
 * goes on with a treatment of its own. What is typed stands where it is typed meanwhile, and is asked about when typing is over.
 */
export function useShared(sheet: Sheet, stack: Stack): { edit: AskedEdit; question: React.ReactNode } {
  const [asked, setAsked] = useState<{ layers: Layer[] | null; then?: () => void } | null>(null);
  const waits = useRef<(() => void) | null>(null);
  const decided = isDecided(sheet);
  useEffect(() => () => waits.current?.(), []);

  // Said elsewhere on this page meanwhile, what is held need not wait any more.
  const { held, release } = stack;
  useEffect(() => {
    if (held && decided) release();
  }, [held, decided, release]);

  const edit: AskedEdit = (next, together = null, moves = false, then) => {
    // A field that is left as it was changes nothing, and nothing is asked about it.
    if (isDecided(sheet) || same(next, stack.current())) {
      stack.edit(next, together, moves);
      then?.();
    } else if (isTyping() || stack.held) {
      stack.hold();
      stack.edit(next, together, moves);
      then?.();
      waits.current?.();
      // Typed back to what it was, there is nothing to ask.
      waits.current = whenTypingIsOver(() =>
        stack.isUnstored() ? setAsked({ layers: null }) : stack.release(),
      );
    } else setAsked({ layers: next, then });
  };
  return {
    edit,
    question: (
      <>
        {asked && <Whom sheet={sheet} stack={stack} asked={asked} onClose={() => setAsked(null)} />}
        {stack.held && !asked && !decided && (
          <HeldStrip ask="Say whom it is for" onAsk={() => setAsked({ layers: null })}>
            {sheet.treatmentName} is laid on {plural(sheet.sharedWith.length + 1, "zone")}.
          </HeldStrip>
        )}
      </>
    ),
  };
}

/** Whom an edit is for. */
function Whom(props: {
  sheet: Sheet;
  stack: Stack;
  /** The stack as it is wanted; null where it stands as it was typed. */
  asked: { layers: Layer[] | null; then?: () => void };
  onClose: () => void;
}) {
  const { sheet, stack, asked, onClose } = props;
  const [never, setNever] = useState(false);
  const [send, busy] = useWrite("plan");
  const queries = useQueryClient();
  const say = useSay();
  const others = sheet.sharedWith;
  const all = () => {
    forAll.add(sheet.treatmentId);
    if (never) localStorage.setItem(NEVER, "all");
    if (asked.layers) stack.edit(asked.layers);
    else stack.release();
    onClose();
    asked.then?.();
  };
  const part = async () => {
    try {
      await stack.settled();
      await send((headers) =>
        api.POST("/api/zones/{zoneId}/part", {
          headers,
          params: { path: { zoneId: sheet.zone.id } },
          body: { name: null, layers: asked.layers ?? stack.layers },
        }),
      );
      // What was typed lies in the zone's own treatment now; the shared one is as it was.
      stack.release(true);
      onClose();
      say(`${sheet.zone.name} on ${sheet.zone.designName} has a treatment of its own now.`);
      await queries.invalidateQueries({ queryKey: ["zone", sheet.zone.id] });
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      say(error.message, true);
    }
  };
  return (
    <Dialog
      open
      bySelf
      onClose={onClose}
      title="Whom is this for?"
      says={`${sheet.treatmentName} is laid on ${plural(others.length + 1, "zone")}: this one, and ${others.slice(0, 3).join("; ")}${others.length > 3 ? ` and ${others.length - 3} more` : ""}.`}
    >
      <div className="grid gap-2">
        <Button tone="go" className="justify-self-start" disabled={busy} onClick={all}>
          All {others.length + 1} zones change with it
        </Button>
        <Button tone="plain" className="justify-self-start" disabled={busy} onClick={() => void part()}>
          Only {sheet.zone.name} on {sheet.zone.designName}: part it from the rest
        </Button>
        <Button
          className="justify-self-start"
          onClick={() => {
            stack.release(true);
            onClose();
          }}
        >
          Leave it as it was
        </Button>
        <label className="mt-1 flex min-h-6 items-center gap-1.5 text-xs">
          <input type="checkbox" checked={never} onChange={(e) => setNever(e.target.checked)} />
          Always all of them; do not ask again on this device
        </label>
      </div>
    </Dialog>
  );
}
