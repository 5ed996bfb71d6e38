import type { Refusal, Schema } from "../../api/client";
import { rebase, same, type Layer } from "./stack";
import type { Scope } from "./whom";

type Sheet = Schema["ZoneSheet"];

/** A stack as the server has it: what the next change builds on. */
export type Stored = Pick<Sheet, "version" | "revision" | "layers">;

/** One thing the painter did, by the name under which it can be undone, the stack it came to, and whom it is for. */
export type Step = { step: string; layers: Layer[]; for?: Scope };

/** A change on its way: its key and its layers belong together until there is a definite answer. */
/** With the revision it was edited from it is stored although another surface of the treatment was edited since. */
export type Sending = Step & { key: string; version: number; revision?: number };

export type StackState = {
  stored: Stored;
  layers: Layer[];
  /** What was done and is not on its way yet, oldest first; the last comes to the layers as they are. */
  waiting: Step[];
  /** What was taken back before it was stored. */
  takenBack: Step[];
  /** Edits that follow each other with the same word are one step of undo, of this name. */
  together: string | null;
  step: string | null;
  sending: Sending | null;
  /** What another window stored, where both changed the same layer; `base` is what both began from. */
  conflict: { base: Layer[]; theirs: Sheet } | null;
  /** Why the last change was refused; it waits for another edit. */
  fault: Refusal | null;
};

export type StackAction =
  | { do: "edit"; layers: Layer[]; step: string; together?: string | null; for?: Scope }
  | { do: "for"; scope: Scope }
  | { do: "take back" }
  | { do: "give again" }
  | { do: "send"; key: string }
  | { do: "stored"; now: Stored }
  | { do: "refused"; why: Refusal }
  | { do: "arrive"; theirs: Sheet }
  | { do: "overtaken"; theirs: Sheet }
  | { do: "settle"; layers: Layer[]; own: string; step: string };

export const begin = (stored: Stored): StackState => ({
  stored,
  layers: stored.layers,
  waiting: [],
  takenBack: [],
  together: null,
  step: null,
  sending: null,
  conflict: null,
  fault: null,
});

/** Whether something here is not in the database yet. */
export const isUnstored = (s: StackState) => s.sending !== null || s.waiting.length > 0;

/** How it stands with storing, in one word. */
export function saving(s: StackState): "saved" | "saving" | "waiting" | "failed" {
  if (!isUnstored(s)) return "saved";
  if (s.sending) return "saving";
  return s.fault ? "failed" : "waiting";
}

/** What to send now: nothing while something is on its way, in doubt, or refused. */
export const isDue = (s: StackState) => !s.sending && !s.conflict && !s.fault && s.waiting.length > 0;

/** What the last thing that waits was done to. */
const below = (s: StackState) => s.waiting.at(-2)?.layers ?? s.sending?.layers ?? s.stored.layers;

/** The stack after an action. Everything that can happen to it is here; who waits, sends and keeps is elsewhere. */
export function stackAfter(s: StackState, a: StackAction): StackState {
  switch (a.do) {
    case "edit": {
      if (same(a.layers, s.layers)) return s;
      const together = a.together ?? null;
      const goesOn = together !== null && together === s.together;
      // What goes on with a step that is stored already keeps its name: the server takes both as one.
      const step = (goesOn && s.step) || a.step;
      const before = s.waiting.at(-1)?.step === step ? s.waiting.slice(0, -1) : s.waiting;
      // Back to what is stored, nothing needs storing.
      const nothing = !s.sending && same(a.layers, s.stored.layers);
      return {
        ...s,
        layers: a.layers,
        waiting: nothing ? [] : [...before, { step, layers: a.layers, ...(a.for && { for: a.for }) }],
        takenBack: [],
        together,
        step,
        fault: null,
      };
    }
    case "for":
      // What waits was done before it was said whom it is for.
      return { ...s, waiting: s.waiting.map((w) => ({ ...w, for: a.scope })) };
    case "take back": {
      const last = s.waiting.at(-1);
      if (!last) return s;
      return {
        ...s,
        layers: below(s),
        waiting: s.waiting.slice(0, -1),
        takenBack: [...s.takenBack, last],
        together: null,
        fault: null,
      };
    }
    case "give again": {
      const again = s.takenBack.at(-1);
      if (!again) return s;
      return {
        ...s,
        layers: again.layers,
        waiting: [...s.waiting, again],
        takenBack: s.takenBack.slice(0, -1),
        together: null,
        fault: null,
      };
    }
    case "send": {
      const [next, ...rest] = s.waiting;
      if (!next || !isDue(s)) return s;
      return {
        ...s,
        waiting: rest,
        sending: { ...next, key: a.key, version: s.stored.version, revision: s.stored.revision },
      };
    }
    case "stored": {
      // One that was stored before what arrived meanwhile tells nothing new.
      if (a.now.revision < s.stored.revision) return { ...s, sending: null };
      // Nothing was edited since: it is shown as the server words it.
      return { ...s, sending: null, stored: a.now, layers: s.waiting.length > 0 ? s.layers : a.now.layers };
    }
    case "refused":
      // It waits again, before what came after it.
      return {
        ...s,
        sending: null,
        fault: a.why,
        waiting: s.sending ? [again(s.sending), ...s.waiting] : s.waiting,
      };
    case "arrive":
      return arrived(s, a.theirs);
    case "overtaken": {
      // It never got in. What is here lies on top of theirs, or is settled by the painter; what is no newer only brings its version.
      const waiting = s.sending ? [again(s.sending), ...s.waiting] : s.waiting;
      const free = { ...s, sending: null, waiting };
      return a.theirs.revision > s.stored.revision ? arrived(free, a.theirs) : { ...free, stored: a.theirs };
    }
    case "settle": {
      if (!s.conflict) return s;
      const { theirs } = s.conflict;
      // The painter's own version is stored before what was chosen, so that it is one undo away.
      const steps = [
        { step: a.own, layers: s.layers },
        { step: a.step, layers: a.layers },
      ];
      return {
        ...s,
        stored: theirs,
        conflict: null,
        layers: a.layers,
        waiting: steps.filter((w, i) => !same(w.layers, steps[i - 1]?.layers ?? theirs.layers)),
        takenBack: [],
        together: null,
      };
    }
  }
}

/** What was on its way waits again. */
const again = ({ step, layers, for: scope }: Sending): Step => ({
  step,
  layers,
  ...(scope && { for: scope }),
});

/**
 * Takes in what another window stored, with the edits made here on top of it; each step that waits is carried over by itself. Where both
 * changed the same layer, the painter is asked.
 */
function arrived(s: StackState, theirs: Sheet): StackState {
  // While something is on its way, its answer tells whose came first.
  if (s.sending || theirs.revision <= s.stored.revision) return s;
  const base = s.stored.layers;
  const layers = same(s.layers, theirs.layers) ? theirs.layers : rebase(base, s.layers, theirs.layers);
  if (!layers) return { ...s, conflict: { base, theirs } };
  const carried = s.waiting.map((w) => ({ ...w, layers: rebase(base, w.layers, theirs.layers) ?? w.layers }));
  // A step that comes to nothing on top of theirs is none.
  const waiting = carried.filter((w, i) => !same(w.layers, carried[i - 1]?.layers ?? theirs.layers));
  return {
    ...s,
    stored: theirs,
    layers,
    waiting,
    takenBack: [],
    together: null,
    conflict: null,
    fault: null,
  };
}
