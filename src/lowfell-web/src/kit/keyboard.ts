/** Something a view can do: by its key, from the finder, and named in the list of keys. */
export type Command = {
  id: string;
  key: string;
  says: string;
  /** Left out where the key belongs to a part of the view, which acts on it by itself. */
  run?: () => void;
};

/** What can be done at present, by one part of the page. It is not ready while its data is coming. */
export type Scope = {
  name: string;
  view: boolean;
  ready: boolean;
  commands: readonly Command[];
  /** Where it stands: a view that is being left still stands somewhere else than the page by then does. */
  place?: string;
};

type Around = {
  /** Whether the page is on its way to another view. */
  busy: () => boolean;
  /** Where the page stands. */
  place?: () => string;
  /** Puts a letter into the field that has the focus; false when none has. */
  type: (letter: string) => boolean;
  /** The key a command has in this browser, null for none. */
  keyOf: (command: Command) => string | null;
};

/** More than this and somebody leans on the keyboard. */
const MOST_HELD = 60;

/**
 * Keys and what they do. A key that comes while a view is on its way, or its data, is held and acted on when it is there: in the order
 * they came, as letters where a field has the focus by then.
 */
export class Keyboard {
  private readonly scopes = new Map<object, Scope>();
  private readonly watching = new Set<() => void>();
  private held: string[] = [];
  private list: Scope[] = [];

  constructor(private readonly around: Around) {}

  /** Sets what a part of the page can do now; the same owner sets it anew as often as it changes. */
  set(owner: object, scope: Scope) {
    const was = this.scopes.get(owner);
    this.scopes.set(owner, scope);
    if (!was || was.ready !== scope.ready || !alike(was, scope)) this.changed();
  }

  leave(owner: object) {
    if (this.scopes.delete(owner)) this.changed();
  }

  /** What can be done now, the view before what holds everywhere: to be listed, and done by {@link does}. */
  now = (): readonly Scope[] => this.list;

  watch = (call: () => void) => {
    this.watching.add(call);
    return () => void this.watching.delete(call);
  };

  /** A view is there with its data, and nothing is on its way. */
  ready(): boolean {
    const all = [...this.scopes.values()];
    const here = this.around.place?.();
    const arrived = all.filter((s) => s.view).every((s) => s.place === here);
    return !this.around.busy() && arrived && all.some((s) => s.view) && all.every((s) => s.ready);
  }

  /** A key was pressed where nothing is typed; true when it is dealt with or will be. */
  press(word: string): boolean {
    if (this.held.length > 0 || !this.ready()) {
      if (this.held.length < MOST_HELD) this.held.push(word);
      return true;
    }
    return this.run(word);
  }

  /** Acts on what was held, as far as the page is ready for it. */
  drain() {
    while (this.held.length > 0 && this.ready()) {
      const word = this.held.shift()!;
      if (word.length !== 1 || !this.around.type(word)) this.run(word);
    }
  }

  /** What was held no longer has a page to act on. */
  forget() {
    this.held = [];
  }

  /** Does what a command does by now, however old the list is that it was chosen from. */
  does(id: string): boolean {
    const command = this.live().find((c) => c.run && c.id === id);
    command?.run!();
    return !!command;
  }

  private run(word: string): boolean {
    const command = this.live().find((c) => c.run && this.around.keyOf(c) === word);
    command?.run!();
    return !!command;
  }

  private live = () => inOrder(this.scopes).flatMap((s) => s.commands);

  private changed() {
    this.list = inOrder(this.scopes);
    for (const call of this.watching) call();
  }
}

const inOrder = (scopes: ReadonlyMap<object, Scope>) =>
  [...scopes.values()].sort((a, b) => Number(b.view) - Number(a.view));

/** Alike to look at; what they call is always looked up anew. */
const alike = (a: Scope, b: Scope) =>
  a.name === b.name &&
  a.commands.length === b.commands.length &&
  a.commands.every((c, i) => c.id === b.commands[i]!.id && c.says === b.commands[i]!.says);

/** A key as it is written in lists: "a", "?", "Ctrl+Shift+Z"; null for keys that only come with others. */
export function wordOf(
  e: Pick<KeyboardEvent, "key" | "ctrlKey" | "metaKey" | "shiftKey" | "altKey">,
): string | null {
  if (["Shift", "Control", "Alt", "Meta", "AltGraph", "CapsLock", "Dead"].includes(e.key)) return null;
  const mod = e.ctrlKey || e.metaKey;
  if (!mod && !e.altKey) return e.key;
  return [
    mod && "Ctrl",
    e.altKey && "Alt",
    e.shiftKey && "Shift",
    e.key.length === 1 ? e.key.toUpperCase() : e.key,
  ]
    .filter(Boolean)
    .join("+");
}
