import type { Refusal, Schema } from "../../api/client";
import { rebase, same, type Layer } from "./stack";

type Sheet = Schema["ZoneSheet"];

/** A stack as the server has it: what the next change builds on. */
export type Stored = Pick<Sheet, "version" | "revision" | "layers">;

/** A change on its way: its key and its layers belong together until there is a definite answer. */
export type Sending = { key: string; version: number; layers: Layer[] };

export type StackState = {
  stored: Stored;
  layers: Layer[];
  past: Layer[][];
  future: Layer[][];
  /** Edits that follow each other with the same word are one step of undo. */
  together: string | null;
  sending: Sending | null;
  /** What another window stored, where both changed the same layer; `base` is what both began from. */
  conflict: { base: Layer[]; theirs: Sheet } | null;
  /** Why the last change was refused; it waits for another edit. */
  fault: Refusal | null;
};

export type StackAction =
  | { do: "edit"; layers: Layer[]; together?: string | null }
  | { do: "undo" }
  | { do: "redo" }
  | { do: "send"; key: string }
  | { do: "stored"; now: Stored }
  | { do: "refused"; why: Refusal }
  | { do: "arrive"; theirs: Sheet }
  | { do: "overtaken"; theirs: Sheet }
  | { do: "settle"; layers: Layer[] };

const DEEPEST = 200;

export const begin = (stored: Stored): StackState => ({
  stored,
  layers: stored.layers,
  past: [],
  future: [],
  together: null,
  sending: null,
  conflict: null,
  fault: null,
});

/** Whether something here is not in the database yet. */
export const isUnstored = (s: StackState) => s.sending !== null || !same(s.layers, s.stored.layers);

/** How it stands with storing, in one word. */
export function saving(s: StackState): "saved" | "saving" | "waiting" | "failed" {
  if (!isUnstored(s)) return "saved";
  if (s.sending) return "saving";
  return s.fault ? "failed" : "waiting";
}

/** What to send now: nothing while something is on its way, in doubt, or refused. */
export const isDue = (s: StackState) => !s.sending && !s.conflict && !s.fault && isUnstored(s);

/** The stack after an action. Everything that can happen to it is here; who waits, sends and keeps is elsewhere. */
export function stackAfter(s: StackState, a: StackAction): StackState {
  switch (a.do) {
    case "edit": {
      if (same(a.layers, s.layers)) return s;
      const together = a.together ?? null;
      const joins = together !== null && together === s.together;
      const past = joins ? s.past : [...s.past, s.layers].slice(-DEEPEST);
      return { ...s, layers: a.layers, past, future: [], together, fault: null };
    }
    case "undo":
    case "redo": {
      const [from, to] = a.do === "undo" ? (["past", "future"] as const) : (["future", "past"] as const);
      const next = s[from].at(-1);
      if (!next) return s;
      return {
        ...s,
        layers: next,
        [from]: s[from].slice(0, -1),
        [to]: [...s[to], s.layers],
        together: null,
        fault: null,
      };
    }
    case "send":
      if (!isDue(s)) return s;
      return { ...s, sending: { key: a.key, version: s.stored.version, layers: s.layers } };
    case "stored":
      // One that was stored before what arrived meanwhile tells nothing new.
      if (a.now.revision < s.stored.revision) return { ...s, sending: null };
      // Nothing was edited since: it is shown as the server words it.
      return {
        ...s,
        sending: null,
        stored: a.now,
        layers: same(s.layers, s.sending?.layers) ? a.now.layers : s.layers,
      };
    case "refused":
      return { ...s, sending: null, fault: a.why };
    case "arrive":
      return arrived(s, a.theirs);
    case "overtaken": {
      // It never got in. What is here lies on top of theirs, or is settled by the painter; what is no newer only brings its version.
      const free = { ...s, sending: null };
      return a.theirs.revision > s.stored.revision ? arrived(free, a.theirs) : { ...free, stored: a.theirs };
    }
    case "settle": {
      if (!s.conflict) return s;
      const past = same(a.layers, s.layers) ? s.past : [...s.past, s.layers].slice(-DEEPEST);
      return {
        ...s,
        stored: s.conflict.theirs,
        conflict: null,
        layers: a.layers,
        past,
        future: [],
        together: null,
      };
    }
  }
}

/**
 * Takes in what another window stored, with the edits made here on top of it. The steps of undo are carried over too: they then take
 * back only what was done here. Where both changed the same layer, the painter is asked.
 */
function arrived(s: StackState, theirs: Sheet): StackState {
  // While something is on its way, its answer tells whose came first.
  if (s.sending || theirs.revision <= s.stored.revision) return s;
  const base = s.stored.layers;
  const layers = same(s.layers, theirs.layers) ? theirs.layers : rebase(base, s.layers, theirs.layers);
  if (!layers) return { ...s, conflict: { base, theirs } };
  const carry = (step: Layer[]) => rebase(base, step, theirs.layers) ?? step;
  return {
    ...s,
    stored: theirs,
    layers,
    past: s.past.map(carry),
    future: s.future.map(carry),
    together: null,
    conflict: null,
    fault: null,
  };
}
