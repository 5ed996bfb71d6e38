import { describe, expect, it } from "vitest";
import { Keyboard, wordOf, type Command } from "./keyboard";

function desk() {
  const log: string[] = [];
  const state = { busy: false, field: null as string | null, off: new Set<string>() };
  const keyboard = new Keyboard({
    busy: () => state.busy,
    type: (letter) => {
      if (state.field === null) return false;
      state.field += letter;
      return true;
    },
    keyOf: (c) => (state.off.has(c.id) ? null : c.key),
  });
  const command = (key: string, does = key): Command => ({
    id: key,
    key,
    says: key,
    run: () => log.push(does),
  });
  const view = {};
  const set = (ready: boolean, ...commands: Command[]) =>
    keyboard.set(view, { name: "view", view: true, ready, commands });
  keyboard.set(
    {},
    { name: "everywhere", view: false, ready: true, commands: [command("p", "plan"), command("x", "shell")] },
  );
  return { keyboard, log, state, command, set, view };
}

describe("keys", () => {
  it("do what the view says before what holds everywhere", () => {
    const { keyboard, log, set, command } = desk();
    set(true, command("x", "view"));
    expect([keyboard.press("x"), keyboard.press("p"), keyboard.press("q")]).toEqual([true, true, false]);
    expect(log).toEqual(["view", "plan"]);
  });
  it("that come before a view is there wait for it, in their order", () => {
    const { keyboard, log, set, command } = desk();
    keyboard.press("a");
    keyboard.press("b");
    set(false, command("a"), command("b"));
    keyboard.drain();
    expect(log).toEqual([]);
    keyboard.press("a");
    set(true, command("a"), command("b"));
    keyboard.drain();
    expect(log).toEqual(["a", "b", "a"]);
  });
  it("do nothing in a view that is being left", () => {
    const d = desk();
    let here = "plan";
    const log = d.log;
    const keyboard = new Keyboard({
      busy: () => false,
      place: () => here,
      type: () => false,
      keyOf: (c) => c.key,
    });
    const view = (place: string, does: string) => ({
      name: place,
      view: true,
      ready: true,
      place,
      commands: [d.command("a", does)],
    });
    const [old, fresh] = [{}, {}];
    keyboard.set(old, view("plan", "old"));
    here = "shelf";
    keyboard.press("a");
    keyboard.drain();
    expect(log).toEqual([]);
    keyboard.leave(old);
    keyboard.set(fresh, view("shelf", "new"));
    keyboard.drain();
    expect(log).toEqual(["new"]);
  });
  it("are letters when a field has the focus by then", () => {
    const { keyboard, log, set, state, command } = desk();
    set(true, command("r"));
    state.busy = true;
    for (const letter of "rust") keyboard.press(letter);
    [state.busy, state.field] = [false, ""];
    keyboard.drain();
    expect([state.field, log]).toEqual(["rust", []]);
  });
  it("that lead to another view hold those after them until it is there", () => {
    const { keyboard, log, set, state, command } = desk();
    const go: Command = { ...command("s"), run: () => void (state.busy = true) };
    set(true, go, command("a", "old"));
    keyboard.press("s");
    keyboard.press("a");
    expect(log).toEqual([]);
    set(true, command("a", "new"));
    state.busy = false;
    keyboard.drain();
    expect(log).toEqual(["new"]);
  });
  it("act by the newest closures of a command", () => {
    const { keyboard, log, set, command } = desk();
    set(true, command("a", "first"));
    set(true, command("a", "second"));
    keyboard.press("a");
    expect(log).toEqual(["second"]);
  });
  it("can be taken from a command", () => {
    const { keyboard, log, set, state, command } = desk();
    set(true, command("a"));
    state.off.add("a");
    expect(keyboard.press("a")).toBe(false);
    expect(log).toEqual([]);
  });
  it("of a part that left no longer act", () => {
    const { keyboard, log, set, view, command } = desk();
    set(true, command("a"));
    keyboard.leave(view);
    keyboard.press("a");
    keyboard.drain();
    expect(log).toEqual([]);
    keyboard.forget();
    set(true, command("a"));
    keyboard.drain();
    expect(log).toEqual([]);
  });
  it("are told to watchers only when the list of them changes", () => {
    const { keyboard, set, command } = desk();
    let told = 0;
    const stop = keyboard.watch(() => told++);
    set(true, command("a"));
    set(true, command("a", "other closure"));
    expect(told).toBe(1);
    set(false, command("a"));
    expect(told).toBe(2);
    stop();
    set(true, command("b"));
    expect(told).toBe(2);
    expect(keyboard.now().map((s) => s.name)).toEqual(["view", "everywhere"]);
  });
  it("leaned on are not held for ever", () => {
    const { keyboard, log, set, command } = desk();
    for (let n = 0; n < 500; n++) keyboard.press("a");
    set(true, command("a"));
    keyboard.drain();
    expect(log.length).toBeLessThan(100);
  });
});

describe("the word of a key", () => {
  const e = (key: string, mods: object = {}) => ({
    key,
    ctrlKey: false,
    metaKey: false,
    shiftKey: false,
    altKey: false,
    ...mods,
  });
  it.each([
    [e("a"), "a"],
    [e("?", { shiftKey: true }), "?"],
    [e("z", { ctrlKey: true }), "Ctrl+Z"],
    [e("Z", { ctrlKey: true, shiftKey: true }), "Ctrl+Shift+Z"],
    [e("z", { metaKey: true }), "Ctrl+Z"],
    [e("ArrowUp", { altKey: true }), "Alt+ArrowUp"],
    [e("Shift", { shiftKey: true }), null],
    [e("Dead"), null],
  ])("%o is %s", (event, word) => {
    expect(wordOf(event)).toBe(word);
  });
});
