const KEY = "lowfell.lately";
const KEPT = 8;

/** Materials chosen last in this browser, the latest first. */
export function lately(): string[] {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? "[]") as unknown;
    return Array.isArray(kept) ? kept.filter((x) => typeof x === "string") : [];
  } catch {
    return [];
  }
}

/** Remembers that one was chosen. */
export function used(id: string) {
  localStorage.setItem(KEY, JSON.stringify([id, ...lately().filter((x) => x !== id)].slice(0, KEPT)));
}
