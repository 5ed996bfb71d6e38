import { useEffect, useRef, useSyncExternalStore } from "react";
import { Keyboard, wordOf, type Command } from "./keyboard";
import { lettersAreDead, textual } from "./typing";

// Keys as this browser has them: which letters act, and on what.
const LETTERS = "lowfell.letters",
  OWN = "lowfell.keys";

export const letters = {
  on: () => localStorage.getItem(LETTERS) !== "off",
  turn: (on: boolean) => localStorage.setItem(LETTERS, on ? "on" : "off"),
};

function own(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(OWN) ?? "{}") as Record<string, string>;
  } catch {
    return {};
  }
}

/** The key that a command has here. */
export const keyOf = (c: Command) => own()[c.id] ?? c.key;

/** Gives a command another key; null gives back the one it came with. */
export function giveKey(id: string, key: string | null) {
  const all = own();
  if (key === null) delete all[id];
  else all[id] = key;
  localStorage.setItem(OWN, JSON.stringify(all));
}

const placeOf = (path: string) => path.split("/")[1] ?? "";

let onItsWay = () => false;

// Between asking for another view and the page setting out for it.
let leaving = false;

/** Says that the page is about to leave for another view: keys from now on are meant for that one. */
export function leave(go: () => void) {
  leaving = true;
  go();
}

/** Where letters are letters: text fields, and lists that find their entries by them. */
const choosing = `${textual}, select, [role=combobox], [aria-haspopup=listbox], [role=listbox], [role=menu], [aria-haspopup=menu], [role=dialog], [role=alertdialog]`;

/** Where the arrow keys have work to do. */
const stepping = `${choosing}, [role=slider], [role=tab], [role=radio], input`;

export const keyboard = new Keyboard({
  busy: () => leaving || onItsWay(),
  place: () => placeOf(location.pathname),
  keyOf: (c) => {
    const key = keyOf(c);
    return key.length === 1 && !letters.on() ? null : key;
  },
  type: (letter) => {
    const field = document.activeElement;
    return !!field?.matches(textual) && document.execCommand("insertText", false, letter);
  },
});

/** Whether letters pressed at an element are meant for it. */
export const typing = (e: Event) => !!(e.target as HTMLElement | null)?.closest(choosing);

function onKeyDown(e: KeyboardEvent) {
  const word = wordOf(e);
  if (!word || e.defaultPrevented || e.isComposing || (e.repeat && word.length === 1 && word === "?")) return;
  const at = e.target as HTMLElement;
  const single = word.length === 1;
  if (single ? typing(e) || !letters.on() : at.closest(`${textual}, [role=dialog], [role=alertdialog]`))
    return;

  // What is typed on into a field that is no longer there is meant for nothing else.
  if (single && lettersAreDead()) return;

  // Letters belong to the view: on the bar, a link or a menu has the focus.
  if (single && at !== document.body && !at.closest("main")) return;
  // Up and down mean something of their own to sliders, tabs and choices.
  if (!single && !word.startsWith("Ctrl+") && (!/^Arrow(Up|Down)$/.test(word) || at.closest(stepping)))
    return;
  if (keyboard.press(word)) e.preventDefault();
}

/** Listens for keys, once for the page; they wait while it is on its way to another view. */
export function listenForKeys(busy: () => boolean, whenSettled: (call: () => void) => () => void) {
  onItsWay = busy;
  window.addEventListener("keydown", onKeyDown);
  // Whoever points at something means that, and no longer the keys that had to wait.
  const pointed = () => keyboard.forget();
  window.addEventListener("pointerdown", pointed, true);
  const drain = () => window.setTimeout(() => keyboard.drain());
  const settled = () => {
    if (!busy()) leaving = false;
    drain();
  };
  const stops = [whenSettled(settled), keyboard.watch(drain)];
  return () => {
    window.removeEventListener("keydown", onKeyDown);
    window.removeEventListener("pointerdown", pointed, true);
    for (const stop of stops) stop();
  };
}

/** Says what a part of the page can do, with its keys. A view says so always, and whether its data is there. */
export function useCommands(name: string, commands: readonly Command[], { view = false, ready = true } = {}) {
  const owner = useRef<{ place?: string }>({});
  useEffect(() => {
    // Where the view was opened; while it is being left, the page's address is ahead of it.
    const place = (owner.current.place ??= placeOf(location.pathname));
    keyboard.set(owner.current, { name, view, ready, commands, place });
  });
  useEffect(() => {
    const me = owner.current;
    return () => keyboard.leave(me);
  }, []);
}

/** Everything that can be done at present. */
export const useAllCommands = () => useSyncExternalStore(keyboard.watch, keyboard.now);
