import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refused } from "./client";
import { isOpen, pauseMs, wake, write } from "./writes";

type Reply = { status: number; body?: unknown } | "nobody";

/** A server that does a write once for every key, and whose answers may be lost on the way. */
function server(...replies: Reply[]) {
  const keys: string[] = [];
  const done = new Set<string>();
  const call = (headers: { "Idempotency-Key": string }) => {
    keys.push(headers["Idempotency-Key"]);
    const reply = replies.shift() ?? { status: 200, body: "done" };
    if (reply === "nobody") return Promise.reject(new TypeError("Failed to fetch"));
    if (reply.status < 300) done.add(headers["Idempotency-Key"]);
    const response = { ok: reply.status < 300, status: reply.status } as Response;
    return Promise.resolve(response.ok ? { data: reply.body, response } : { error: reply.body, response });
  };
  return { call, keys, done };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

async function settled<T>(promise: Promise<T>) {
  const end = promise.then(
    (value) => ({ value }),
    (error: unknown) => ({ error }),
  );
  await vi.runAllTimersAsync();
  return end;
}

describe("a write", () => {
  it("that is answered is sent once", async () => {
    const { call, keys } = server({ status: 200, body: 7 });
    expect(await settled(write(call))).toEqual({ value: 7 });
    expect(keys).toHaveLength(1);
  });
  it("whose answer came with nothing in it is sent again under its key", async () => {
    const { call, keys, done } = server({ status: 200 }, { status: 200 }, { status: 200, body: 7 });
    expect(await settled(write(call))).toEqual({ value: 7 });
    expect([keys.length, done.size]).toEqual([3, 1]);
  });
  it("that has nothing to answer is done", async () => {
    const { call, keys } = server({ status: 204 });
    expect(await settled(write(call))).toEqual({ value: undefined });
    expect(keys).toHaveLength(1);
  });
  it.each([1, 3, 12])("keeps its key when the answer is lost %i times", async (times) => {
    const { call, keys, done } = server(...Array.from({ length: times }, (): Reply => "nobody"), {
      status: 200,
      body: "done",
    });
    await settled(write(call));
    expect(keys).toHaveLength(times + 1);
    expect([new Set(keys).size, done.size]).toEqual([1, 1]);
  });
  it("waits for a server that says not now, and for room on its disk", async () => {
    const { call, keys } = server(
      { status: 503, body: { code: "busy" } },
      { status: 507 },
      { status: 200, body: "in" },
    );
    expect(await settled(write(call))).toEqual({ value: "in" });
    expect(new Set(keys).size).toBe(1);
  });
  it.each([400, 404, 409, 413, 500])("that is refused with %i is not sent again", async (status) => {
    const { call, keys } = server({ status, body: { code: "no", detail: "No." } });
    const end = await settled(write(call));
    expect("error" in end && end.error).toBeInstanceOf(Refused);
    expect(keys).toHaveLength(1);
  });
  it("is sent under the key it was given, as after a reload", async () => {
    const { call, keys } = server("nobody", { status: 200, body: "done" });
    await settled(write(call, "mine"));
    expect(keys).toEqual(["mine", "mine"]);
  });
  it("does not wait longer when the server is known to be back", async () => {
    const { call, keys } = server("nobody", "nobody", { status: 200, body: "done" });
    const going = write(call);
    await vi.advanceTimersByTimeAsync(0);
    wake();
    await vi.advanceTimersByTimeAsync(0);
    wake();
    await vi.advanceTimersByTimeAsync(0);
    await going;
    expect(keys).toHaveLength(3);
  });
  it("of another is another key", async () => {
    const { call, keys } = server();
    await settled(Promise.all([write(call), write(call)]));
    expect(new Set(keys).size).toBe(2);
  });
});

describe("waiting", () => {
  it("grows and has an end", () => {
    const pauses = Array.from({ length: 30 }, (_, n) => pauseMs(n));
    expect(pauses).toEqual([...pauses].sort((a, b) => a - b));
    expect([pauses[0], pauses.at(-1)]).toEqual([500, 10_000]);
  });
  it.each([
    [0, true],
    [502, true],
    [503, true],
    [504, true],
    [507, true],
    [200, false],
    [400, false],
    [409, false],
    [500, false],
  ])("after %i: %s", (status, open) => {
    expect(isOpen({ status })).toBe(open);
  });
});
