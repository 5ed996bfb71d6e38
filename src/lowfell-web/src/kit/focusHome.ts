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
    if (document.querySelector("[role=dialog], [role=alertdialog], [role=menu]")) return;
    const home =
      path.find((e) => e.isConnected && e.matches("[data-home], main, [tabindex]:not(body)")) ??
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
  document.addEventListener("keyup", later);
  document.addEventListener("click", later);
  const gone = new MutationObserver(later);
  gone.observe(document.body, { childList: true, subtree: true });
  return () => {
    document.removeEventListener("focusin", remember);
    document.removeEventListener("keyup", later);
    document.removeEventListener("click", later);
    gone.disconnect();
  };
}
