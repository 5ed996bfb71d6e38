// What is typed into a form and not stored yet. It is written down with every key, so that neither Escape nor another view, a reload
// or a closed browser loses it.

const PREFIX = "lowfell.draft.";

/** Drafts older than this are of no use to anyone. */
const KEPT_DAYS = 30;

/** `from` is the version that was edited, where there is one: what others have stored since must not be overwritten unseen. */
type Draft = { at: number; values: unknown; from?: number };

export const drafts = {
  whole(name: string): Draft | null {
    try {
      return JSON.parse(localStorage.getItem(PREFIX + name) ?? "null") as Draft | null;
    } catch {
      return null;
    }
  },
  of: (name: string): unknown => drafts.whole(name)?.values ?? null,
  keep(name: string, values: unknown, from?: number) {
    try {
      localStorage.setItem(PREFIX + name, JSON.stringify({ at: Date.now(), values, from } satisfies Draft));
    } catch {
      // A full or forbidden store keeps nothing; the form goes on without.
    }
  },
  drop: (name: string) => localStorage.removeItem(PREFIX + name),
  /** Throws away what nobody came back to. */
  tidy(now: number) {
    for (const key of Object.keys(localStorage).filter((k) => k.startsWith(PREFIX))) {
      const name = key.slice(PREFIX.length);
      try {
        const { at } = JSON.parse(localStorage.getItem(key)!) as Draft;
        if (now - at > KEPT_DAYS * 86_400_000) drafts.drop(name);
      } catch {
        drafts.drop(name);
      }
    }
  },
};

/**
 * What was typed, laid over what the form begins with now: only fields it still has, and only values of their kind, so that a draft of
 * an older page cannot break a newer form.
 */
export function overlay<T extends Record<string, unknown>>(begin: T, draft: unknown): T {
  if (typeof draft !== "object" || draft === null) return begin;
  const typed = draft as Record<string, unknown>;
  const kind = (v: unknown) => (Array.isArray(v) ? "list" : v === null ? "none" : typeof v);
  return Object.fromEntries(
    Object.entries(begin).map(([key, value]) => [
      key,
      key in typed && kind(typed[key]) === kind(value) ? typed[key] : value,
    ]),
  ) as T;
}
