import { api, Refused, type Schema } from "../../api/client";
import { cache, readAgain } from "../../api/cache";
import { outbox, type Kept } from "../../api/outbox";
import { write } from "../../api/writes";
import {
  begin,
  isDue,
  isUnstored,
  stackAfter,
  type Sending,
  type Step,
  type StackAction,
  type StackState,
  type Stored,
} from "./stackState";
import { same, type Layer } from "./stack";
import type { Scope } from "./whom";

type Sheet = Schema["ZoneSheet"];

/** What of a stack is kept in the browser until it is stored. */
type Unstored = {
  zoneId: string;
  stored: Stored;
  layers: Layer[];
  waiting: Step[];
  sending: Sending | null;
  held?: boolean;
};

const KIND = "stack";
const SEND_AFTER_MS = 350;

/**
 * A stack while it is being edited, whoever looks at it: it stores itself a moment after the last edit, goes on when the painter has
 * left the zone, and keeps what is unstored in the browser.
 */
export class StackKeeper {
  private readonly watchers = new Set<() => void>();
  private timer = 0;
  private was: StackState;

  constructor(
    readonly name: string,
    public zoneId: string,
    public state: StackState,
    /** What is edited stays here, and is not stored before it is said whom it is for. */
    public held = false,
  ) {
    this.was = state;
    if (state.sending) void this.send(state.sending);
    else if (isDue(state)) this.later();
  }

  watch = (call: () => void) => {
    this.watchers.add(call);
    return () => void this.watchers.delete(call);
  };

  now = () => this.state;

  dispatch(action: StackAction) {
    const next = stackAfter(this.state, action);
    if (next === this.state) return;
    this.was = this.state;
    this.state = next;
    this.keep();
    for (const call of this.watchers) call();
    if (isDue(next)) this.later();
  }

  /** Has edits wait here until it is said whom they are for. */
  hold() {
    this.held = true;
    this.keep();
  }

  /** It was said: what waits goes, for whom it was said, or is dropped. */
  release(drop = false, scope?: Scope) {
    if (!this.held) return;
    this.held = false;
    if (scope) this.dispatch({ do: "for", scope });
    if (drop) this.dispatch({ do: "edit", layers: this.state.stored.layers, step: crypto.randomUUID() });
    this.keep();
    for (const call of this.watchers) call();
    this.flush();
  }

  edit(layers: Layer[], together: string | null = null, scope?: Scope) {
    this.dispatch({ do: "edit", layers, together, for: scope, step: crypto.randomUUID() });
  }

  /** Resolves once nothing is on its way any more: all is stored, or the painter is asked. */
  async settled() {
    this.flush();
    while (this.state.sending)
      await new Promise<void>((resolve) => {
        const leave = this.watch(() => {
          leave();
          resolve();
        });
      });
  }

  /** Stores what waits now and not a moment later. */
  flush = () => {
    window.clearTimeout(this.timer);
    const before = this.state;
    if (this.held || !isDue(before)) return;
    this.dispatch({ do: "send", key: crypto.randomUUID() });
    if (this.state.sending && this.state.sending !== before.sending) void this.send(this.state.sending);
  };

  /** Tries again what was refused, as it stands. */
  retry = () => {
    if (this.state.fault) this.state = { ...this.state, fault: null };
    this.flush();
  };

  private later() {
    window.clearTimeout(this.timer);
    // Figures that a finger is still moving wait for it; what is done in one go need not.
    this.timer = window.setTimeout(this.flush, this.state.together ? SEND_AFTER_MS : 0);
  }

  private async send(sending: Sending) {
    try {
      const sheet = await write(
        (headers) =>
          api.PUT("/api/plan/zones/{zoneId}/stack", {
            params: { path: { zoneId: this.zoneId } },
            headers: { ...headers, "Lowfell-Step": sending.step },
            body: {
              version: sending.version,
              revision: sending.revision,
              layers: sending.layers,
              for: sending.for ?? null,
            },
          }),
        sending.key,
      );
      this.dispatch({ do: "stored", now: sheet });
      showStored(sheet);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      const theirs =
        error.refusal.code === "changed-elsewhere" ? (error.refusal.current as Sheet | undefined) : undefined;
      if (theirs) this.dispatch({ do: "overtaken", theirs });
      else this.dispatch({ do: "refused", why: error.refusal });
    }
    if (isDue(this.state)) this.flush();
  }

  private keep() {
    const { stored, layers, waiting, sending } = this.state;
    if (isUnstored(this.state)) {
      const what: Unstored = {
        zoneId: this.zoneId,
        stored: only(stored),
        layers,
        waiting,
        sending,
        held: this.held,
      };
      outbox.keep({ name: this.name, kind: KIND, what });
    } else if (isUnstored(this.was)) outbox.done(this.name);
  }
}

/** Shows what was stored, unless something newer is shown already, and has what else shows the set read again. */
function showStored(sheet: Sheet) {
  const key = ["zone", sheet.zone.id];
  const shown = cache.getQueryData<Sheet>(key);
  if (!shown || shown.revision <= sheet.revision) cache.setQueryData(key, sheet);
  void readAgain(["plan"], ["zone", "workshops", "house"]);
}

/** What an earlier release kept: the stack as it was, without the steps to it. */
const unsent = (layers: Layer[], base: Layer[]): Step[] =>
  same(layers, base) ? [] : [{ step: crypto.randomUUID(), layers }];

const only = ({ version, revision, layers }: Stored): Stored => ({ version, revision, layers });

const keepers = new Map<string, StackKeeper>();

/**
 * The keeper of the stack of a surface, which zones that take the same one share; made from a sheet when there is none yet, else given the
 * sheet to take in.
 */
export function keeperOf(sheet: Sheet): StackKeeper {
  const name = `${KIND} ${sheet.surfaceId}`;
  let keeper = keepers.get(name);
  if (!keeper) keepers.set(name, (keeper = new StackKeeper(name, sheet.zone.id, begin(sheet))));
  // A zone that was looked at before may have parted from the surface since: it is stored by one that has it.
  keeper.zoneId = sheet.zone.id;
  return keeper;
}

/**
 * Takes up what an earlier page could not store; it is stored whether or not its zone is opened. What comes late goes on top of what is
 * shown by then, unless that is being edited already.
 */
export function takeUp(all: readonly Kept[]) {
  for (const kept of all) {
    if (kept.kind !== KIND) continue;
    const { zoneId, stored, layers, sending, waiting, held } = kept.what as Unstored;
    const here = keepers.get(kept.name);
    if (!here)
      keepers.set(
        kept.name,
        new StackKeeper(
          kept.name,
          zoneId,
          {
            ...begin(stored),
            layers,
            waiting: waiting ?? unsent(layers, sending?.layers ?? stored.layers),
            sending,
          },
          held,
        ),
      );
    else if (!isUnstored(here.state) && here.state.stored.revision === stored.revision) here.edit(layers);
  }
}
