import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, once, Refused, take, type Schema } from "../../api/client";
import { useSay } from "../../kit/Toast";
import { notBegun, type Progress } from "./HalfDone";
import { merge, same, type Layer } from "./stack";

type Sheet = Schema["ZoneSheet"];
type History = { past: Layer[][]; future: Layer[][] };

// Undo survives going to another zone and back; it ends with the page.
const histories = new Map<string, History>();
const DEEPEST = 200;
const SAVE_AFTER_MS = 350;

/**
 * The stack being edited. Edits show at once; a reading (colours, findings, amounts) is asked for with every edit and the
 * stack is stored a moment later. When another window stored first, both versions are kept until the painter has chosen.
 */
export function useStack(sheet: Sheet) {
  const zoneId = sheet.zone.id;
  const [progress, setProgress] = useState<Progress>(notBegun);
  const begun = useRef(notBegun);
  const queries = useQueryClient();
  const say = useSay();
  const [layers, setLayers] = useState(sheet.layers);
  const [reading, setReading] = useState(sheet.reading);
  const [saving, setSaving] = useState<"saved" | "saving" | "waiting" | "failed">("saved");
  const [conflict, setConflict] = useState<{ base: Layer[]; theirs: Sheet } | null>(null);
  const [fault, setFault] = useState<Refused | null>(null);
  const stored = useRef(sheet);
  const now = useRef(sheet.layers);
  const live = useRef(false);
  const preview = useRef<Layer[] | null>(null);
  const coalesce = useRef<string | null>(null);
  const timer = useRef(0);
  const busy = useRef(false);
  const reads = useRef<{ busy: boolean; next: Layer[] | null }>({ busy: false, next: null });
  const historyKey = sheet.treatmentId;
  const history = useCallback(() => {
    let h = histories.get(historyKey);
    if (!h) histories.set(historyKey, (h = { past: [], future: [] }));
    return h;
  }, [historyKey]);

  // One reading is on its way at a time, and only the newest draft waits for the next: a slider that moves faster than
  // the answers come still shows every answer.
  const read = useCallback(
    async (draft: Layer[]) => {
      const line = reads.current;
      line.next = draft;
      if (line.busy) return;
      line.busy = true;
      while (line.next) {
        const layers = line.next;
        line.next = null;
        try {
          const answer = await take(
            api.POST("/api/plan/zones/{zoneId}/reading", {
              params: { path: { zoneId } },
              body: { layers, laid: begun.current.laid, minutesSinceLast: begun.current.minutesSinceLast },
            }),
          );
          // A draft that a slider is still moving shows with its colours, in one go; anything else is shown already.
          if (live.current && layers !== preview.current) setLayers(layers);
          setReading(answer);
          setFault(null);
        } catch (error) {
          if (error instanceof Refused) setFault(error);
        }
      }
      line.busy = false;
    },
    [zoneId],
  );

  const again = useRef<() => void>(() => {});

  const save = useCallback(async () => {
    if (busy.current || same(now.current, stored.current.layers)) {
      if (!busy.current) setSaving("saved");
      return;
    }
    busy.current = true;
    setSaving("saving");
    const sent = now.current;
    try {
      const answer = await take(
        api.PUT("/api/plan/zones/{zoneId}/stack", {
          params: { path: { zoneId } },
          headers: once(),
          body: { version: stored.current.version, layers: sent },
        }),
      );
      stored.current = answer;
      queries.setQueryData(["zone", zoneId], answer);
      void queries.invalidateQueries({ queryKey: ["overview"] });
      void queries.invalidateQueries({ queryKey: ["remarks"] });
      busy.current = false;
      if (same(now.current, sent)) {
        setLayers(sent);
        // What is stored is said of a piece not begun; the one half done is asked about again.
        if (begun.current.laid > 0) void read(sent);
        else setReading(answer.reading);
        setSaving("saved");
      } else again.current();
    } catch (error) {
      busy.current = false;
      if (!(error instanceof Refused)) return;
      if (error.refusal.code === "changed-elsewhere" && error.refusal.current) {
        const theirs = error.refusal.current as Sheet;
        const base = stored.current.layers;
        if (merge(base, now.current, theirs.layers).clashes.length === 0 && same(now.current, base)) {
          stored.current = theirs;
          setSaving("saved");
          return;
        }
        setConflict({ base, theirs });
        setSaving("waiting");
      } else {
        setFault(error);
        setSaving("failed");
        if (error.refusal.status !== 400) say(error.message, true);
      }
    }
  }, [zoneId, queries, say, read]);

  useEffect(() => {
    again.current = () => void save();
  }, [save]);

  const show = useCallback(
    (next: Layer[], moving = false) => {
      now.current = next;
      live.current = moving;
      if (!moving) setLayers(next);
      void read(next);
      setSaving("waiting");
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => void save(), SAVE_AFTER_MS);
    },
    [read, save],
  );

  /**
   * Changes the stack; edits with the same key that follow each other are one step of undo. While something moves, layers and
   * colours are drawn together as the answers come, so that every step costs one drawing and not two.
   */
  const edit = useCallback(
    (next: Layer[], key: string | null = null, moving = false) => {
      if (same(next, now.current)) return;
      const h = history();
      if (key === null || key !== coalesce.current) {
        h.past.push(now.current);
        if (h.past.length > DEEPEST) h.past.shift();
      }
      h.future = [];
      coalesce.current = key;
      show(next, moving);
    },
    [history, show],
  );

  const look = useCallback(
    (draft: Layer[]) => {
      preview.current = draft;
      void read(draft);
    },
    [read],
  );

  const step = useCallback(
    (from: "past" | "future", to: "past" | "future") => {
      const h = history();
      const next = h[from].pop();
      if (!next) return;
      h[to].push(now.current);
      coalesce.current = null;
      show(next);
    },
    [history, show],
  );

  const changeProgress = useCallback(
    (next: Progress) => {
      begun.current = next;
      setProgress(next);
      void read(now.current);
    },
    [read],
  );

  /** Settles a conflict with a stack made from both versions; the own version stays one undo away. */
  const settleWith = useCallback(
    (chosen: Layer[]) => {
      if (!conflict) return;
      stored.current = conflict.theirs;
      setConflict(null);
      const mine = now.current;
      if (!same(chosen, mine)) history().past.push(mine);
      coalesce.current = null;
      show(chosen);
    },
    [conflict, history, show],
  );

  // Leaving the zone or the page stores what is still waiting.
  useEffect(() => {
    const flush = () => {
      window.clearTimeout(timer.current);
      void save();
    };
    window.addEventListener("beforeunload", flush);
    return () => {
      window.removeEventListener("beforeunload", flush);
      flush();
    };
  }, [save]);

  return {
    layers,
    reading,
    saving,
    fault,
    conflict,
    edit,
    preview: look,
    /** The layers as they are at this moment, ahead of what is drawn while a slider moves. */
    current: () => now.current,
    settleWith,
    progress,
    changeProgress,
    retry: () => void save(),
    undo: () => step("past", "future"),
    redo: () => step("future", "past"),
    canUndo: (histories.get(historyKey)?.past.length ?? 0) > 0,
    canRedo: (histories.get(historyKey)?.future.length ?? 0) > 0,
  };
}
