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
import { concerned, type Scope } from "./whom";

type Sheet = Schema["ZoneSheet"];
/** What comes after an edit waits with it. */
type AskedEdit = (next: Layer[], together?: string | null, moves?: boolean, then?: () => void) => void;

type Stack = {
  layers: Layer[];
  current: () => Layer[];
  edit: (next: Layer[], together?: string | null, moves?: boolean, scope?: Scope) => void;
  settled: () => Promise<void>;
  held: boolean;
  isUnstored: () => boolean;
  hold: () => void;
  release: (drop?: boolean, scope?: Scope) => void;
};

// Of which surfaces it was said on this page that all zones follow, and whom edits of layers are for that others have too.
const forAll = new Set<string>();
const scopes = new Map<string, Scope>();
const NEVER = "lowfell.shared";

const zonesSaid = (sheet: Sheet) =>
  sheet.sharedWith.length === 0 || forAll.has(sheet.surfaceId) || localStorage.getItem(NEVER) === "all";

/** Whether it was said whom an edit is for, as far as it could be for others. */
const isDecided = (sheet: Sheet, before: readonly Layer[], next: readonly Layer[]) =>
  zonesSaid(sheet) && (scopes.has(sheet.surfaceId) || concerned(sheet, before, next).length === 0);

/**
 * The first edit of a stack that several zones share, or of a layer that goes over other surfaces too, waits until it is said whom it is
 * for. What is typed stands where it is typed meanwhile, and is asked about when typing is over.
 */
export function useShared(
  sheet: Sheet,
  stack: Stack,
): { edit: AskedEdit; question: React.ReactNode; said: React.ReactNode } {
  const [asked, setAsked] = useState<{ layers: Layer[] | null; then?: () => void } | null>(null);
  const waits = useRef<(() => void) | null>(null);
  const [, drawAgain] = useState(0);
  const decided = !stack.held || isDecided(sheet, sheet.layers, stack.layers);
  useEffect(() => () => waits.current?.(), []);

  // Said elsewhere on this page meanwhile, what is held need not wait any more.
  const { held, release } = stack;
  const scope = scopes.get(sheet.surfaceId);
  useEffect(() => {
    if (held && decided) release(false, scope);
  }, [held, decided, release, scope]);

  const edit: AskedEdit = (next, together = null, moves = false, then) => {
    // A field that is left as it was changes nothing, and nothing is asked about it.
    if (same(next, stack.current()) || (!stack.held && isDecided(sheet, stack.current(), next))) {
      stack.edit(next, together, moves, scopes.get(sheet.surfaceId));
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
            {zonesSaid(sheet)
              ? "what you changed goes over other surfaces too."
              : `${sheet.treatmentName} is laid on ${plural(sheet.sharedWith.length + 1, "zone")}.`}
          </HeldStrip>
        )}
      </>
    ),
    said: scope && sheet.surfaces.length > 1 && (
      <p className="text-xs text-soft" data-scope={scope}>
        {scope === "everywhere"
          ? "Changes to a layer are for every surface it goes over."
          : `Changes are for ${sheet.surface} alone.`}{" "}
        <button
          type="button"
          className="min-h-6 underline"
          onClick={() => {
            scopes.delete(sheet.surfaceId);
            drawAgain((n) => n + 1);
          }}
        >
          Ask again
        </button>
      </p>
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
  const wanted = asked.layers ?? stack.layers;
  const also = scopes.has(sheet.surfaceId) ? [] : concerned(sheet, sheet.layers, wanted);
  const all = (scope?: Scope) => {
    forAll.add(sheet.surfaceId);
    if (scope) scopes.set(sheet.surfaceId, scope);
    if (never) localStorage.setItem(NEVER, "all");
    if (asked.layers) stack.edit(asked.layers, null, false, scope);
    else stack.release(false, scope);
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
          body: { name: null, layers: wanted },
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
      says={[also.length > 0 && goesOver(also), others.length > 0 && laidOn(sheet)].filter(Boolean).join(" ")}
    >
      <div className="grid gap-2">
        {also.length > 0 ? (
          <>
            <Button
              tone="go"
              className="justify-self-start"
              disabled={busy}
              onClick={() => all("everywhere")}
            >
              Wherever the layer lies: {[sheet.surface, ...also].join(", ")}
            </Button>
            <Button tone="plain" className="justify-self-start" disabled={busy} onClick={() => all("here")}>
              Only {sheet.surface}
            </Button>
          </>
        ) : (
          <Button tone="go" className="justify-self-start" disabled={busy} onClick={() => all()}>
            All {others.length + 1} zones change with it
          </Button>
        )}
        {others.length > 0 && (
          <Button tone="plain" className="justify-self-start" disabled={busy} onClick={() => void part()}>
            Only {sheet.zone.name} on {sheet.zone.designName}: part it from the rest
          </Button>
        )}
        <Button
          className="justify-self-start"
          onClick={() => {
            stack.release(true);
            onClose();
          }}
        >
          Leave it as it was
        </Button>
        {also.length === 0 && (
          <label className="mt-1 flex min-h-6 items-center gap-1.5 text-xs">
            <input type="checkbox" checked={never} onChange={(e) => setNever(e.target.checked)} />
            Always all of them; do not ask again on this device
          </label>
        )}
      </div>
    </Dialog>
  );
}

const goesOver = (also: readonly string[]) => `What you changed also goes over ${also.join(" and ")}.`;

const laidOn = ({ treatmentName, sharedWith: others }: Sheet) =>
  `${treatmentName} is laid on ${plural(others.length + 1, "zone")}: this one, and ${others.slice(0, 3).join("; ")}${others.length > 3 ? ` and ${others.length - 3} more` : ""}.`;
