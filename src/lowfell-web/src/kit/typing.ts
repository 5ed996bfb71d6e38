/** Where what is typed is text. */
export const textual =
  "input:not([type=checkbox]):not([type=radio]):not([type=range]):not([type=button]):not([type=file]), textarea, [contenteditable=true]";

/** How long a hand goes on after what it typed into is gone. */
const HAND_MS = 500,
  LOOK_MS = 100;

// Whether the last thing that was done went on with typing: a letter, or a step to the next field.
let goesOn = false;
let deadUntil = 0;

if (typeof window !== "undefined") {
  window.addEventListener("keydown", (e) => (goesOn = e.key !== "Enter" && e.key !== "Escape"), true);
  window.addEventListener("pointerdown", () => (goesOn = false), true);
}

/** Whether somebody is in the middle of a word. */
export const isTyping = () => goesOn && !!document.activeElement?.matches(textual);

/** Calls back once nobody is typing: at once, after Enter, or when the field was left. Gives what calls it off. */
export function whenTypingIsOver(call: () => void): () => void {
  if (!isTyping()) {
    call();
    return () => undefined;
  }
  const timer = window.setInterval(() => {
    if (isTyping()) return;
    window.clearInterval(timer);
    call();
  }, LOOK_MS);
  return () => window.clearInterval(timer);
}

/** The page took the field away that was typed into: the letters that still come are meant for it, and for nothing else. */
export const fieldIsGone = () => {
  if (goesOn) deadUntil = performance.now() + HAND_MS;
};

/** Whether single letters are meant for a field that is gone. */
export const lettersAreDead = () => performance.now() < deadUntil;
