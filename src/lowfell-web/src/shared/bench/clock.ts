/** What is told of the moment something happened: by this device's clock, and what is known of that clock. */
export type Stamp = {
  toldAt: string;
  /** The run of this page, and milliseconds since it began: a clock that nobody can set. */
  epoch: string;
  tick: number;
  /** By how much the clock was behind the server's when that was last known, ms. */
  offsetMs?: number;
  /** By how much it has run ahead of the ticks since: the device slept, or its clock was put forward. */
  aheadMs?: number;
};

/** Clocks this near to each other are alike. */
const SLACK_MS = 2000;

const OFFSET = "lowfell.bench.offset";

type Known = { offsetMs: number; wall: number; tick: number };

/**
 * The time as the server has it, from a clock that may be wrong and may be put right at any time. Ticks of the page tell when that
 * happened: where less time goes by on the wall than in ticks, the clock was put back.
 */
export class BenchClock {
  readonly epoch = crypto.randomUUID() as string;
  private known: Known | null;

  constructor(
    private readonly wall = () => Date.now(),
    private readonly ticks = () => performance.now(),
    private readonly store: Pick<Storage, "getItem" | "setItem"> = localStorage,
  ) {
    const kept = Number(store.getItem(OFFSET) ?? NaN);
    this.known = Number.isFinite(kept) ? { offsetMs: kept, wall: wall(), tick: ticks() } : null;
  }

  /**
   * The server said what time it is, and looked some time between the asking and now. What was known stays where that can be so: a slow
   * answer says less of the time than a quick one did, and a clock that is moved at every answer turns round what is told.
   */
  learn(serverNow: number, askedTick: number) {
    const [wall, tick, was] = [this.wall(), this.ticks(), this.now()];
    const [least, most] = [serverNow - wall, serverNow - wall + (tick - askedTick)];
    const offsetMs = was ? Math.min(most, Math.max(least, was.offsetMs)) : (least + most) / 2;
    this.known = { offsetMs, wall, tick };
    this.store.setItem(OFFSET, String(offsetMs));
  }

  /** By how much the clock is behind now, as far as is known, and how far it ran ahead of the ticks since that was known. */
  private now(): { offsetMs: number; aheadMs: number } | null {
    if (!this.known) return null;
    const ahead = this.wall() - this.known.wall - (this.ticks() - this.known.tick);
    return ahead < -SLACK_MS
      ? { offsetMs: this.known.offsetMs - ahead, aheadMs: 0 }
      : { offsetMs: this.known.offsetMs, aheadMs: ahead > SLACK_MS ? ahead : 0 };
  }

  /** The server's time, ms since 1970. */
  serverNow = () => this.wall() + (this.now()?.offsetMs ?? 0);

  /** An instant told here, as the server has it. */
  stamp(): Stamp {
    const now = this.now();
    return {
      toldAt: new Date(this.wall()).toISOString(),
      epoch: this.epoch,
      tick: this.ticks(),
      ...(now ? { offsetMs: now.offsetMs } : {}),
      ...(now && now.aheadMs > 0 ? { aheadMs: now.aheadMs } : {}),
    };
  }

  sent = () => ({
    sentAt: new Date(this.wall()).toISOString(),
    epoch: this.epoch,
    tick: this.ticks(),
  });
}

/** The one clock of this page. */
let clock: BenchClock | null = null;
export const benchClock = () => (clock ??= new BenchClock());
