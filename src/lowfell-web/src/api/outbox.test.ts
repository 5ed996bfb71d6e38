import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Kept } from "./outbox";

/** A browser's own store, as slow and as broken as a test wants it. */
const store = {
  rows: new Map<string, Kept>(),
  broken: false,
  stuck: null as Promise<void> | null,
  opened: 0,
  puts: 0,
};
const slow = () => new Promise<void>((done) => setTimeout(done, 5));
vi.mock("idb", () => ({
  openDB: async () => {
    store.opened++;
    await store.stuck;
    if (store.broken) return Promise.reject(new Error("nothing is kept here"));
    return Promise.resolve({
      put: async (_: string, what: Kept) => {
        await slow();
        store.puts++;
        store.rows.set(what.name, what);
      },
      delete: async (_: string, name: string) => {
        await slow();
        store.rows.delete(name);
      },
      count: () => Promise.resolve(store.rows.size),
      getAll: () => Promise.resolve([...store.rows.values()]),
    });
  },
}));

const aside = new Map<string, string>();
let leave = () => {};
async function fresh() {
  vi.resetModules();
  return (await import("./outbox")).outbox;
}
const thing = (name: string, what: unknown = 1): Kept => ({ name, kind: "stack", what });
/** What was written aside. */
const left = () => [...aside.keys()].filter((k) => k.startsWith("lowfell.outbox."));
const settled = () => vi.waitFor(() => slow());

beforeEach(() => {
  store.rows.clear();
  Object.assign(store, { broken: false, stuck: null, opened: 0, puts: 0 });
  aside.clear();
  vi.stubGlobal("window", { addEventListener: (_: string, call: () => void) => (leave = call) });
  const local = {
    setItem: (k: string, v: string) => void aside.set(k, v),
    getItem: (k: string) => aside.get(k) ?? null,
    removeItem: (k: string) => void aside.delete(k),
  };
  vi.stubGlobal(
    "localStorage",
    new Proxy(local, {
      ownKeys: () => [...aside.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    }),
  );
});

describe("what is unstored", () => {
  it("is there again for the next page", async () => {
    (await fresh()).keep(thing("t1"));
    await vi.waitFor(() => expect(store.rows.size).toBe(1));
    expect(await (await fresh()).all()).toEqual([thing("t1")]);
  });

  it("is kept as it was last, however quickly it changed", async () => {
    const outbox = await fresh();
    for (let n = 1; n <= 20; n++) outbox.keep(thing("t1", n));
    await vi.waitFor(() => expect(store.rows.get("t1")?.what).toBe(20));
    expect(store.puts).toBeLessThan(5);
  });

  it("is forgotten when it is stored, even while it is still being kept", async () => {
    const outbox = await fresh();
    outbox.keep(thing("t1"));
    outbox.done("t1");
    outbox.keep(thing("t2"));
    await vi.waitFor(() => expect([...store.rows.keys()]).toEqual(["t2"]));
    expect(await (await fresh()).all()).toEqual([thing("t2")]);
  });
});

describe("a page that goes in the very instant of a change", () => {
  it("writes it aside, and the next page finds it", async () => {
    const outbox = await fresh();
    outbox.keep(thing("t1", "typed last"));
    leave();
    store.rows.clear();
    expect(await (await fresh()).all()).toEqual([thing("t1", "typed last")]);
    expect(left()).toEqual([]);
  });

  it("writes aside too that something is done with", async () => {
    store.rows.set("t1", thing("t1"));
    aside.set("lowfell.outbox", "1");
    const outbox = await fresh();
    outbox.done("t1");
    leave();
    store.rows.set("t1", thing("t1"));
    expect(await (await fresh()).all()).toEqual([]);
    await settled();
  });

  it("writes nothing aside that has been kept already", async () => {
    const outbox = await fresh();
    outbox.keep(thing("t1"));
    await vi.waitFor(() => expect(store.rows.size).toBe(1));
    await settled();
    leave();
    expect(left()).toEqual([]);
  });
});

describe("a browser that keeps nothing", () => {
  it("goes on without, and still writes aside what a page leaves behind", async () => {
    store.broken = true;
    const outbox = await fresh();
    outbox.keep(thing("t1"));
    await settled();
    expect(await outbox.all()).toEqual([]);
    leave();
    expect(await (await fresh()).all()).toEqual([thing("t1")]);
  });
});

describe("a store that does not answer", () => {
  it("holds up no page, and what it has is told when it comes", async () => {
    (await fresh()).keep(thing("t1"));
    await vi.waitFor(() => expect(store.rows.size).toBe(1));
    let answer = () => {};
    store.stuck = new Promise((go) => (answer = go));
    const late = vi.fn();
    expect(await (await fresh()).all(late)).toEqual([]);
    expect(late).not.toHaveBeenCalled();
    answer();
    await vi.waitFor(() => expect(late).toHaveBeenCalledWith([thing("t1")]));
  });

  it("is not even opened where nothing was kept, or all of it is done", async () => {
    expect(await (await fresh()).all()).toEqual([]);
    expect(store.opened).toBe(0);
    const outbox = await fresh();
    outbox.keep(thing("t1"));
    await vi.waitFor(() => expect(store.rows.size).toBe(1));
    await settled();
    outbox.done("t1");
    await vi.waitFor(() => expect(aside.has("lowfell.outbox")).toBe(false));
    store.opened = 0;
    expect(await (await fresh()).all()).toEqual([]);
    expect(store.opened).toBe(0);
  });
});
