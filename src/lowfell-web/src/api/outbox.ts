import { openDB, type IDBPDatabase } from "idb";

/** Something that was changed here and is not in the database yet, under a name of its own. */
export type Kept<T = unknown> = { name: string; kind: string; what: T };

const AT_ONCE = "lowfell.outbox.";

/** Says that something may lie in the browser's own store: without it, that need not be opened at all. */
const ANYTHING = "lowfell.outbox";

/** A store that answers later than this does not hold up a page; a page left while its store was being made can block the next. */
const PATIENCE_MS = 1500;

let db: Promise<IDBPDatabase> | null = null;
const open = () =>
  (db ??= openDB("lowfell", 1, {
    upgrade: (fresh) => void fresh.createObjectStore("outbox", { keyPath: "name" }),
  }));

/** What changes at every move of a slider is put into that store as often as this, and not more. */
const CALM_MS = 100;

/** What has not reached the browser's own store yet: written aside in the instant the page goes. */
const onTheWay = new Map<string, Kept | null>();

async function settle(name: string) {
  const what = onTheWay.get(name);
  try {
    if (what) localStorage.setItem(ANYTHING, "1");
    const store = await open();
    if (what) await store.put("outbox", what);
    else await store.delete("outbox", name);
    const last = onTheWay.size === 1 && onTheWay.get(name) === null;
    if (last && (await store.count("outbox")) === 0) localStorage.removeItem(ANYTHING);
  } catch {
    // A browser that keeps nothing: what is unstored lives as long as the page.
    return;
  }
  if (onTheWay.get(name) === what) {
    onTheWay.delete(name);
    return;
  }
  await new Promise((r) => setTimeout(r, CALM_MS));
  await settle(name);
}

function put(name: string, what: Kept | null) {
  const busy = onTheWay.has(name);
  onTheWay.set(name, what);
  if (!busy) void settle(name);
}

async function readAll(): Promise<readonly Kept[]> {
  try {
    return (await (await open()).getAll("outbox")) as Kept[];
  } catch {
    // Nothing is kept in this browser.
    return [];
  }
}

/** Keeps what is unstored over reloads and restarts of the browser. */
export const outbox = {
  keep: (what: Kept) => put(what.name, what),
  done: (name: string) => put(name, null),

  /** Everything that was kept, what was written aside included; what a slow store has is told when it comes. */
  async all(late: (kept: readonly Kept[]) => void = () => {}): Promise<Kept[]> {
    const found = new Map<string, Kept>();
    if (localStorage.getItem(ANYTHING)) {
      const read = readAll();
      const soon = await Promise.race([read, new Promise<null>((r) => setTimeout(r, PATIENCE_MS, null))]);
      for (const kept of soon ?? []) found.set(kept.name, kept);
      if (!soon) void read.then((all) => late(all.filter((k) => !onTheWay.has(k.name))));
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
