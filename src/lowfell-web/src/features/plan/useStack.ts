import { useCallback, useEffect, useRef, useState } from "react";
import { api, Refused, take, type Schema } from "../../api/client";
import { isTurning, turnAndSay } from "../../api/undo";
import { useSay } from "../../kit/Toast";
import { notBegun, type Progress } from "./HalfDone";
import { alike, same, type Layer } from "./stack";
import { keeperOf } from "./stackKeeper";
import { isUnstored, saving } from "./stackState";
import type { Scope } from "./whom";

type Sheet = Schema["ZoneSheet"];

/**
 * The stack being edited, with a reading of it (colours, findings, amounts) that is asked for with every edit. What can happen to a
 * stack is in its state, who stores it is its keeper; here is only what one view of it shows.
 */
export function useStack(sheet: Sheet, workshopId: string) {
  const zoneId = sheet.zone.id;
  const keeper = keeperOf(sheet);
  const [state, setState] = useState(keeper.now);
  const say = useSay();
  const [progress, setProgress] = useState<Progress>(notBegun);
  const begun = useRef(notBegun);
  const [reading, setReading] = useState(sheet.reading);
  const [fault, setFault] = useState<Refused | null>(null);
  const live = useRef(false);
  const preview = useRef<Layer[] | null>(null);
  const line = useRef<{ busy: boolean; next: Layer[] | null }>({ busy: false, next: null });

  // One reading is on its way at a time, and only the newest draft waits for the next: a slider that moves faster than
  // the answers come still shows every answer.
  const read = useCallback(
    async (draft: Layer[]) => {
      line.current.next = draft;
      if (line.current.busy) return;
      line.current.busy = true;
      while (line.current.next) {
        const layers = line.current.next;
        line.current.next = null;
        try {
          const answer = await take(
            api.POST("/api/plan/zones/{zoneId}/reading", {
              params: { path: { zoneId } },
              body: {
                layers,
                laid: begun.current.laid,
                minutesSinceLast: begun.current.minutesSinceLast,
                moving: live.current,
              },
            }),
          );
          if (live.current && layers !== preview.current) setState({ ...keeper.state, layers });
          setReading(answer);
          setFault(null);
        } catch (error) {
          if (error instanceof Refused) setFault(error);
        }
      }
      line.current.busy = false;
    },
    [keeper, zoneId],
  );

  // While a slider moves, layers are drawn together with their colours, so that every step costs one drawing and not two.
  useEffect(() => keeper.watch(() => !live.current && setState(keeper.state)), [keeper]);
  const show = useCallback(
    (moves: boolean) => {
      live.current = moves;
      if (!moves) setState(keeper.state);
      void read(keeper.state.layers);
    },
    [keeper, read],
  );

  // Leaving the zone stores what waits at once; the keeper sees to it from there.
  useEffect(() => keeper.flush, [keeper]);

  // A sheet has come: newer than what is known here, or the same stack on another shelf or under other house rules.
  const seen = useRef<Sheet | null>(null);
  useEffect(() => {
    if (seen.current === sheet) return;
    const first = seen.current === null;
    seen.current = sheet;
    const before = keeper.state;
    // An own storing ends what a slider was moving.
    if (!first && sheet.revision === before.stored.revision) live.current = false;
    keeper.dispatch({ do: "arrive", theirs: sheet });
    const others = !same(keeper.state.layers, before.layers);
    if (!first && others && !keeper.state.conflict && !isTurning())
      say("Another window stored this stack; it is shown as it is now.");
    if (keeper.state.layers === sheet.layers && begun.current.laid === 0) setReading(sheet.reading);
    else show(false);
  }, [sheet, keeper, say, show]);

  const edit = useCallback(
    (next: Layer[], together: string | null = null, moves = false, scope?: Scope) => {
      const before = keeper.state;
      live.current = moves;
      keeper.edit(next, together, scope);
      if (keeper.state === before) return;
      if (alike(keeper.state.layers, before.layers)) setState(keeper.state);
      else show(moves);
    },
    [keeper, show],
  );
  // What is not stored yet is taken back here; everything else by the one undo there is.
  const step = useCallback(
    async (which: "undo" | "redo") => {
      const before = keeper.state;
      keeper.dispatch({ do: which === "undo" ? "take back" : "give again" });
      if (keeper.state !== before) return show(false);
      await keeper.settled();
      if (!keeper.state.conflict) await turnAndSay(workshopId, which, say);
    },
    [keeper, show, say, workshopId],
  );
  const undo = useCallback(() => void step("undo"), [step]);
  const redo = useCallback(() => void step("redo"), [step]);
  const glance = useCallback(
    (draft: Layer[]) => {
      preview.current = draft;
      void read(draft);
    },
    [read],
  );
  const current = useCallback(() => keeper.state.layers, [keeper]);

  return {
    layers: state.layers,
    reading,
    saving: saving(state),
    fault: state.fault ? new Refused(state.fault) : fault,
    conflict: state.conflict,
    edit,
    preview: glance,
    /** The layers as they are at this moment, ahead of what is drawn while a slider moves. */
    current,
    settleWith: (chosen: Layer[]) => {
      keeper.dispatch({
        do: "settle",
        layers: chosen,
        own: crypto.randomUUID(),
        step: crypto.randomUUID(),
      });
      show(false);
    },
    progress,
    changeProgress: (next: Progress) => {
      begun.current = next;
      setProgress(next);
      void read(keeper.state.layers);
    },
    retry: keeper.retry,
    undo,
    redo,
    /** Whether edits wait until it is said whom they are for. */
    held: keeper.held,
    isUnstored: () => isUnstored(keeper.state),
    hold: () => keeper.hold(),
    release: (drop = false, scope?: Scope) => {
      keeper.release(drop, scope);
      show(false);
    },
    /** The version of the treatment that the next change builds on. */
    version: () => keeper.state.stored.version,
    /** Stores what waits; resolves once it is stored or somebody is asked. */
    settled: () => keeper.settled(),
  };
}
