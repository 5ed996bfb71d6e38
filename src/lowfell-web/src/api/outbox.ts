import { openDB, type IDBPDatabase } from "idb";

/** Something that was changed here and is not in the database yet, under a name of its own. */
export type Kept<T = unknown> = { name: string; kind: string; what: T };

const AT_ONCE = "lowfell.outbox.";

let db: Promise<IDBPDatabase> | null = null;
const open = () =>
  (db ??= openDB("lowfell", 1, {
    upgrade: (fresh) => void fresh.createObjectStore("outbox", { keyPath: "name" }),
  }));

/** What has not reached the browser's own store yet: written aside in the instant the page goes. */
const onTheWay = new Map<string, Kept | null>();

async function settle(name: string) {
  const what = onTheWay.get(name);
  try {
    const store = await open();
    if (what) await store.put("outbox", what);
    else await store.delete("outbox", name);
  } catch {
    // A browser that keeps nothing: what is unstored lives as long as the page.
    return;
  }
  if (onTheWay.get(name) === what) onTheWay.delete(name);
  else await settle(name);
}

function put(name: string, what: Kept | null) {
  const busy = onTheWay.has(name);
  onTheWay.set(name, what);
  if (!busy) void settle(name);
}

/** Keeps what is unstored over reloads and restarts of the browser. */
export const outbox = {
  keep: (what: Kept) => put(what.name, what),
  done: (name: string) => put(name, null),

  /** Everything that was kept, what was written aside included. */
  async all(): Promise<Kept[]> {
    const found = new Map<string, Kept>();
    try {
      for (const kept of (await (await open()).getAll("outbox")) as Kept[]) found.set(kept.name, kept);
    } catch {
      // Nothing is kept in this browser.
    }
    for (const key of Object.keys(localStorage).filter((k) => k.startsWith(AT_ONCE))) {
      const name = key.slice(AT_ONCE.length);
      const aside = JSON.parse(localStorage.getItem(key)!) as Kept | null;
      if (aside) found.set(name, aside);
      else found.delete(name);
      put(name, aside);
      localStorage.removeItem(key);
    }
    return [...found.values()];
  },
};

window.addEventListener("pagehide", () => {
  for (const [name, what] of onTheWay) localStorage.setItem(AT_ONCE + name, JSON.stringify(what));
});
