import { describe, expect, it } from "vitest";
import { BenchClock } from "./clock";

const HOUR = 3_600_000,
  BEGIN = Date.UTC(2026, 10, 26, 19);

/** A device whose clock can be set and that can sleep, and a server that is right. */
function device(offMs: number, kept: Record<string, string> = {}) {
  let [now, off, tick] = [BEGIN, offMs, 1000];
  const store = {
    getItem: (k: string) => kept[k] ?? null,
    setItem: (k: string, v: string) => void (kept[k] = v),
  };
  const clock = new BenchClock(
    () => now + off,
    () => tick,
    store,
  );
  return {
    clock,
    kept,
    pass: (ms: number) => ((now += ms), (tick += ms)),
    sleep: (ms: number) => (now += ms),
    set: (to: number) => (off = to),
    ask: () => clock.learn(now, tick),
    /** An answer that takes so long there and so long back. */
    askSlowly: (there: number, back: number) => {
      const asked = tick;
      now += there;
      tick += there;
      const said = now;
      now += back;
      tick += back;
      clock.learn(said, asked);
    },
    right: () => now,
  };
}

const instant = (stamp: ReturnType<BenchClock["stamp"]>) => Date.parse(stamp.toldAt) + (stamp.offsetMs ?? 0);

describe("the clock of a device at the bench", () => {
  it("is put right by what the server said, however wrong it is", () => {
    for (const off of [0, HOUR, -HOUR, -6 * 365 * 24 * HOUR]) {
      const d = device(off);
      d.ask();
      d.pass(20 * 60_000);
      expect(instant(d.clock.stamp())).toBe(d.right());
      expect(d.clock.serverNow()).toBe(d.right());
    }
  });

  it("notices when the clock is put back, and goes on from there", () => {
    const d = device(HOUR);
    d.ask();
    d.pass(10 * 60_000);
    d.set(0);
    d.pass(60_000);
    const stamp = d.clock.stamp();
    expect(instant(stamp)).toBe(d.right());
    expect(stamp.aheadMs).toBeUndefined();
  });

  it("is not moved by answers that are slow, and by quicker ones only as far as they say", () => {
    const d = device(HOUR);
    d.ask();
    for (const [there, back] of [
      [0, 4000],
      [4000, 0],
      [1500, 2500],
    ] as const) {
      d.askSlowly(there, back);
      expect(instant(d.clock.stamp())).toBe(d.right());
    }
    const unknown = device(0);
    unknown.askSlowly(0, 4000);
    expect(Math.abs(instant(unknown.clock.stamp()) - unknown.right())).toBeLessThanOrEqual(2000);
    unknown.askSlowly(10, 100);
    expect(Math.abs(instant(unknown.clock.stamp()) - unknown.right())).toBeLessThanOrEqual(100);
  });

  it("says by how much the clock ran ahead, where it may have slept", () => {
    const d = device(0);
    d.ask();
    d.sleep(6 * HOUR);
    expect(d.clock.stamp()).toMatchObject({ offsetMs: 0, aheadMs: 6 * HOUR });
    d.ask();
    expect(d.clock.stamp().aheadMs).toBeUndefined();
  });

  it("knows from the page before how wrong it is, and says nothing where nobody ever told", () => {
    const first = device(HOUR);
    expect(first.clock.stamp().offsetMs).toBeUndefined();
    first.ask();
    const second = device(HOUR, first.kept);
    expect(instant(second.clock.stamp())).toBe(second.right());
    expect(second.clock.epoch).not.toBe(first.clock.epoch);
    expect(device(0, { "lowfell.bench.offset": "nonsense" }).clock.stamp().offsetMs).toBeUndefined();
  });
});
