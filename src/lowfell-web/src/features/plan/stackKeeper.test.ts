import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Kept } from "../../api/outbox";
import type { Layer } from "./stack";

/** The server's side of one treatment: its newest revision, and what is to become of each storing that is asked for. */
type Asked = {
  key: string;
  zoneId: string;
  version: number;
  layers: Layer[];
  answer: (a: unknown) => void;
  refuse: (e: unknown) => void;
};
const asked: Asked[] = [];
const kept: (Kept | { done: string })[] = [];
const shown = new Map<string, unknown>();

vi.mock("../../api/client", () => {
  class Refused extends Error {
    constructor(readonly refusal: unknown) {
      super("refused");
    }
  }
  const PUT = (
    _: string,
    ask: {
      headers: Record<string, string>;
      params: { path: { zoneId: string } };
      body: { version: number; layers: Layer[] };
    },
  ) =>
    new Promise((answer, refuse) => {
      asked.push({ key: ask.headers["Idempotency-Key"]!, ...ask.params.path, ...ask.body, answer, refuse });
    });
  return { Refused, api: { PUT } };
});
vi.mock("../../api/writes", () => ({
  write: (call: (h: Record<string, string>) => Promise<unknown>, key: string) =>
    call({ "Idempotency-Key": key }),
}));
vi.mock("../../api/cache", () => ({
  cache: {
    getQueryData: (key: string[]) => shown.get(key.join()),
    setQueryData: (key: string[], what: unknown) => shown.set(key.join(), what),
  },
  readAgain: () => Promise.resolve(),
}));
vi.mock("../../api/outbox", () => ({
  outbox: { keep: (what: Kept) => kept.push(what), done: (name: string) => kept.push({ done: name }) },
}));

const layer = (id: string, coats = 1) => ({ id, coats, note: "" }) as unknown as Layer;
const [a, b] = [layer("a"), layer("b")];
let treatment = 0;
const sheet = (revision: number, layers: Layer[], id = treatment) =>
  ({ version: revision * 10, revision, layers, surfaceId: `t${id}`, zone: { id: `z${id}` } }) as never;
const settle = () => vi.advanceTimersByTimeAsync(0);
const coats = (layers: readonly Layer[]) => layers.map((l) => `${l.id}${l.coats}`).join(" ");

async function begin() {
  const { keeperOf } = await import("./stackKeeper");
  treatment++;
  return keeperOf(sheet(1, [a, b]));
}
const edit = (k: Awaited<ReturnType<typeof begin>>, ...layers: Layer[]) => k.edit(layers, "moving");

beforeEach(() => {
  vi.stubGlobal("window", globalThis);
  vi.useFakeTimers();
  asked.length = kept.length = 0;
  shown.clear();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("a stack being edited", () => {
  it("is stored once, a moment after the last edit", async () => {
    const k = await begin();
    edit(k, a, layer("b", 2));
    await vi.advanceTimersByTimeAsync(200);
    edit(k, a, layer("b", 3));
    await vi.advanceTimersByTimeAsync(200);
    expect(asked).toHaveLength(0);
    await vi.advanceTimersByTimeAsync(200);
    expect(asked.map((x) => [x.version, coats(x.layers)])).toEqual([[10, "a1 b3"]]);
    asked[0]!.answer(sheet(2, [a, layer("b", 3)]));
    await settle();
    expect(asked).toHaveLength(1);
    expect(k.state.stored.revision).toBe(2);
    expect(shown.size).toBe(1);
  });

  it("that is edited while it is on its way is sent once more, upon what was stored", async () => {
    const k = await begin();
    edit(k, layer("a", 2), b);
    k.flush();
    edit(k, layer("a", 3), b);
    k.flush();
    expect(asked).toHaveLength(1);
    asked[0]!.answer(sheet(2, [layer("a", 2), b]));
    await settle();
    expect(asked.map((x) => [x.version, coats(x.layers)])).toEqual([
      [10, "a2 b1"],
      [20, "a3 b1"],
    ]);
    expect(asked[0]!.key).not.toBe(asked[1]!.key);
  });

  it("is kept in the browser from the first edit until it is stored", async () => {
    const k = await begin();
    edit(k, layer("a", 2), b);
    expect(kept).toMatchObject([{ kind: "stack", what: { zoneId: `z${treatment}`, sending: null } }]);
    k.flush();
    expect(kept.at(-1)).toMatchObject({ what: { sending: { key: asked[0]!.key } } });
    asked[0]!.answer(sheet(2, [layer("a", 2), b]));
    await settle();
    expect(kept.at(-1)).toEqual({ done: `stack t${treatment}` });
  });

  it("that is refused waits for another edit, or to be tried again as it stands", async () => {
    const { Refused } = await import("../../api/client");
    const k = await begin();
    edit(k, layer("a", 2), b);
    k.flush();
    asked[0]!.refuse(new Refused({ status: 400, code: "invalid", detail: "No.", errors: [] } as never));
    await settle();
    await vi.advanceTimersByTimeAsync(5000);
    expect([asked.length, k.state.fault?.code]).toEqual([1, "invalid"]);
    k.retry();
    expect([asked.length, k.state.fault]).toEqual([2, null]);
    expect(coats(asked[1]!.layers)).toBe("a2 b1");
  });

  it("that another window overtook goes on top of theirs", async () => {
    const { Refused } = await import("../../api/client");
    const k = await begin();
    edit(k, layer("a", 2), b);
    k.flush();
    const theirs = sheet(2, [a, layer("b", 7)]);
    asked[0]!.refuse(new Refused({ status: 409, code: "changed-elsewhere", current: theirs } as never));
    await settle();
    expect(asked.map((x) => [x.version, coats(x.layers)])).toEqual([
      [10, "a2 b1"],
      [20, "a2 b7"],
    ]);
  });

  it("is stored by the zone that is looked at last: an earlier one may have parted from it", async () => {
    const { keeperOf } = await import("./stackKeeper");
    const k = await begin();
    const other = { ...(sheet(1, [a, b]) as object), zone: { id: "other" } } as never;
    expect(keeperOf(other)).toBe(k);
    edit(k, a);
    k.flush();
    expect(asked[0]!.zoneId).toBe("other");
  });

  it("in one go is stored at once, each by itself and in order", async () => {
    const k = await begin();
    k.edit([a]);
    k.edit([a, layer("c")]);
    await settle();
    expect(asked.map((x) => coats(x.layers))).toEqual(["a1"]);
    const done = k.settled();
    asked[0]!.answer(sheet(2, [a]));
    await settle();
    expect(asked.map((x) => coats(x.layers))).toEqual(["a1", "a1 c1"]);
    asked[1]!.answer(sheet(3, [a, layer("c")]));
    await done;
    expect(k.state.waiting).toEqual([]);
  });

  it("tells whoever looks at it, until they look away", async () => {
    const k = await begin();
    const told = vi.fn();
    const stop = k.watch(told);
    edit(k, a);
    edit(k, a);
    stop();
    edit(k, b);
    expect(told).toHaveBeenCalledTimes(1);
  });
});

describe("what an earlier page could not store", () => {
  const left = (sending: object | null): Kept => ({
    name: `stack t${treatment}`,
    kind: "stack",
    what: {
      zoneId: `z${treatment}`,
      stored: { version: 10, revision: 1, layers: [a, b] },
      layers: [layer("a", 4), b],
      sending,
    },
  });

  it("is sent again under the key it had, whether or not its zone is opened", async () => {
    const { takeUp } = await import("./stackKeeper");
    treatment++;
    takeUp([left({ key: "same", version: 10, step: "s", layers: [layer("a", 4), b] })]);
    expect(asked.map((x) => x.key)).toEqual(["same"]);
  });

  it("and had not been sent is sent in a moment", async () => {
    const { takeUp } = await import("./stackKeeper");
    treatment++;
    takeUp([left(null)]);
    expect(asked).toHaveLength(0);
    await vi.advanceTimersByTimeAsync(400);
    expect(asked.map((x) => coats(x.layers))).toEqual(["a4 b1"]);
  });

  it("does not take the place of what is being edited here", async () => {
    const { takeUp } = await import("./stackKeeper");
    const k = await begin();
    edit(k, layer("a", 9), b);
    takeUp([left({ key: "old", version: 10, step: "s", layers: [b] })]);
    expect(coats(k.state.layers)).toBe("a9 b1");
    expect(asked).toHaveLength(0);
  });

  it("and comes late goes on top of what is shown, where nobody has edited that yet", async () => {
    const { takeUp } = await import("./stackKeeper");
    const k = await begin();
    takeUp([left(null)]);
    expect(coats(k.state.layers)).toBe("a4 b1");
    await vi.advanceTimersByTimeAsync(400);
    expect(asked.map((x) => coats(x.layers))).toEqual(["a4 b1"]);
  });

  it("leaves other things that are kept alone", async () => {
    const { takeUp } = await import("./stackKeeper");
    takeUp([{ name: "note", kind: "bench", what: {} }]);
    await vi.advanceTimersByTimeAsync(1000);
    expect(asked).toHaveLength(0);
  });
});
