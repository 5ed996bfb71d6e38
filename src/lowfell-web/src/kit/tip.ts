/** Whether a text is cut off on the screen. */
const isCut = (e: Element) => e.scrollWidth > e.clientWidth + 1;

const CUT = ".truncate",
  TIP = "[data-tip]";

/** What there is to say of an element: a word of its own, or the whole of a name that is cut off. */
export function tipOf(at: Element): { at: Element; text: string } | null {
  const own = at.closest(TIP);
  if (own) return said(own, [own.getAttribute("data-tip") ?? ""]);
  const cut = at.closest(CUT);
  return cut && isCut(cut) ? said(cut, [cut.textContent ?? ""]) : null;
}

/** The same for what has the focus, which may hold several cut names. */
export function tipOfFocus(at: Element): { at: Element; text: string } | null {
  const own = tipOf(at);
  if (own) return own;
  const within = [...at.querySelectorAll(CUT)].filter(isCut).map((e) => e.textContent ?? "");
  return within.length > 0 ? said(at, within) : null;
}

function said(at: Element, texts: string[]) {
  const text = texts
    .map((t) => t.trim())
    .filter((t) => t !== "")
    .join("\n");
  return text ? { at, text } : null;
}
