import { fieldIsGone, textual } from "./typing";

/**
 * Keeps the focus in the view. When what had it is taken away (a layer removed, a form closed), it goes to the nearest place around
 * where it was that can take it, and never to nowhere.
 */
export function keepFocusHome() {
  let path: Element[] = [];
  const remember = () => {
    const at = document.activeElement;
    if (!at || at === document.body) return;
    path = [];
    for (let e: Element | null = at; e; e = e.parentElement) path.push(e);
  };
  const look = () => {
    if (document.activeElement && document.activeElement !== document.body) return;
    if (document.querySelector("[role=menu]")) return;
    if (path[0]?.matches(textual) && !path[0].isConnected) fieldIsGone();
    // A button that what it did switched off takes the focus with it, in a dialog too; it stays in there.
    const dialog = [...document.querySelectorAll("[role=dialog], [role=alertdialog]")].at(-1);
    const home =
      path.find(
        (e) =>
          e.isConnected &&
          (!dialog || dialog.contains(e)) &&
          e.matches("[data-home], main, [tabindex]:not(body)"),
      ) ??
      dialog ??
      document.querySelector("main");
    (home as HTMLElement | null)?.focus({ preventScroll: true });
  };
  // After whatever a key or a click did has been drawn.
  let due = false;
  const later = () => {
    if (due) return;
    due = true;
    requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        due = false;
        look();
      }),
    );
  };
  document.addEventListener("focusin", remember);
  // A button that is switched off loses the focus only some time after it was drawn so.
  const left = (e: FocusEvent) => !e.relatedTarget && later();
  document.addEventListener("focusout", left);
  document.addEventListener("keyup", later);
  document.addEventListener("click", later);
  const gone = new MutationObserver(later);
  gone.observe(document.body, { childList: true, subtree: true });
  return () => {
    document.removeEventListener("focusin", remember);
    document.removeEventListener("focusout", left);
    document.removeEventListener("keyup", later);
    document.removeEventListener("click", later);
    gone.disconnect();
  };
}
