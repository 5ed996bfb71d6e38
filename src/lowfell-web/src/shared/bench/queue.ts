import { openDB, type IDBPDatabase } from "idb";
import { api, Refused, take } from "../../api/client";
import { isOpen, pauseMs } from "../../api/writes";
import type { BenchEvent, Reading, Told } from "./types";

/** What is on its way from this device to the server, and why it has not got there. */
export type Queue = {
  events: readonly BenchEvent[];
  /** Events that the server has answered for, and that are in nothing that was read of it yet. */
  answered: readonly BenchEvent[];
  /** Why it waits; empty while it does not have to. */
  why: string;
  /** Events, and photographs, that were refused for good since the page was opened. */
  refused: readonly { number: number; why: string }[];
  /** How many photographs wait. */
  photos: number;
};

/** A photograph on its way, and what it was taken at. */
type KeptPhoto = {
  id: string;
  workshopId: string;
  setId: string;
  eventId: string;
  takenAt: string;
  data: string;
};

type Kept = BenchEvent & { workshopId: string };

const AT_ONCE = 40;

/** An event as it is sent: whose it is stands in the address. */
function bare(kept: Kept): BenchEvent {
  const event: BenchEvent & { workshopId?: string } = { ...kept };
  delete event.workshopId;
  return event;
}

const database = () =>
  openDB("lowfell-bench", 2, {
    upgrade: (db, from) => {
      if (from < 1) {
        db.createObjectStore("events", { keyPath: ["workshopId", "number"] });
        db.createObjectStore("last");
        db.createObjectStore("readings");
      }
      if (from < 2) db.createObjectStore("photos", { keyPath: ["workshopId", "id"] });
    },
  });
let opened: Promise<IDBPDatabase> | null = null;
const open = () => (opened ??= database());

const photosOf = (workshopId: string) => IDBKeyRange.bound([workshopId, ""], [workshopId, "\uffff"]);

const range = (workshopId: string) =>
  IDBKeyRange.bound([workshopId, 0], [workshopId, Number.MAX_SAFE_INTEGER]);

/**
 * Events of one workshop on their way: kept in the browser before anything else is done with them, numbered as they come, sent in that
 * order, and gone from here only when the server has answered for them.
 */
export class BenchQueue {
  private state: Queue = { events: [], answered: [], why: "", refused: [], photos: 0 };
  private readonly watchers = new Set<() => void>();
  private attempt = 0;
  private timer = 0;
  private sending = false;

  constructor(
    private readonly workshopId: string,
    private readonly settled: () => void,
  ) {}

  now = () => this.state;

  watch = (call: () => void) => {
    this.watchers.add(call);
    return () => void this.watchers.delete(call);
  };

  /** Takes up what an earlier page left behind. */
  async begin() {
    await this.load();
    const again = () => void this.flush();
    window.addEventListener("online", again);
    again();
    return () => {
      window.removeEventListener("online", again);
      window.clearTimeout(this.timer);
    };
  }

  /** Keeps an event and sends it; its id, by which it can be taken back. */
  async tell(told: Told): Promise<string> {
    const event = { ...told, id: crypto.randomUUID() as string, toldAt: new Date().toISOString() };
    const db = await open();
    const step = db.transaction(["events", "last"], "readwrite");
    const newest = await step.objectStore("events").openKeyCursor(range(this.workshopId), "prev");
    const used = (await step.objectStore("last").get(this.workshopId)) as number | undefined;
    const number = Math.max(used ?? 0, (newest?.key as [string, number] | undefined)?.[1] ?? 0) + 1;
    await step.objectStore("events").add({ ...event, number, workshopId: this.workshopId } satisfies Kept);
    await step.done;
    await this.load();
    void this.flush();
    return event.id;
  }

  /** Keeps a photograph of something that was told, and sends it after that. */
  async photo(setId: string, eventId: string, data: string) {
    const kept: KeptPhoto = {
      id: crypto.randomUUID(),
      workshopId: this.workshopId,
      setId,
      eventId,
      takenAt: new Date().toISOString(),
      data,
    };
    await (await open()).add("photos", kept);
    await this.load();
    void this.flush();
  }

  /** Numbers go on from what the server knows of this device, should this browser have forgotten. */
  async learn(last: number) {
    if (this.state.answered.some((e) => e.number <= last))
      this.set({ answered: this.state.answered.filter((e) => e.number > last) });
    const db = await open();
    const used = ((await db.get("last", this.workshopId)) as number | undefined) ?? 0;
    if (last > used) await db.put("last", last, this.workshopId);
  }

  /** Sends what there is, the oldest first, one page of this browser at a time. */
  async flush() {
    if (this.sending) return;
    this.sending = true;
    window.clearTimeout(this.timer);
    try {
      await navigator.locks.request(`lowfell-bench ${this.workshopId}`, () => this.send());
      this.attempt = 0;
      this.set({ why: "" });
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      this.set({ why: error.message });
      if (isOpen(error.refusal))
        this.timer = window.setTimeout(() => void this.flush(), pauseMs(this.attempt++));
    } finally {
      this.sending = false;
    }
    // One that came while the last was on its way.
    if (this.state.events.length + this.state.photos > 0 && !this.state.why) void this.flush();
  }

  /** Photographs go last: they are large, and the bench does not wait for them. */
  private async sendPhotos() {
    const db = await open();
    for (const key of await db.getAllKeys("photos", photosOf(this.workshopId))) {
      const photo = (await db.get("photos", key)) as KeptPhoto | undefined;
      if (!photo) continue;
      const { id, setId, eventId, takenAt, data } = photo;
      try {
        await take(
          api.POST("/api/log/{setId}/photos", {
            params: { path: { setId } },
            headers: { "Idempotency-Key": id },
            body: { id, eventId, takenAt, data },
          }),
        );
      } catch (error) {
        if (!(error instanceof Refused) || isOpen(error.refusal)) throw error;
        const why = error.message;
        this.set({ refused: [...this.state.refused, { number: -this.state.refused.length, why }] });
      }
      await db.delete("photos", key);
      await this.load();
    }
  }

  private async send() {
    for (await this.load(); this.state.events.length > 0; await this.load()) {
      const events = this.state.events.slice(0, AT_ONCE);
      try {
        const answer = await take(
          api.POST("/api/bench/{workshopId}/events", {
            params: { path: { workshopId: this.workshopId } },
            body: { sentAt: new Date().toISOString(), events },
          }),
        );
        const refused = new Set(answer.refused.map((r) => r.number));
        this.set({
          answered: [...this.state.answered, ...events.filter((e) => !refused.has(e.number))],
          refused: [...this.state.refused, ...answer.refused],
        });
        await this.answered(answer.lastNumber);
        this.settled();
      } catch (error) {
        const last =
          error instanceof Refused && (error.refusal.current as { lastNumber?: number })?.lastNumber;
        if (typeof last !== "number") throw error;
        await this.renumber(last);
      }
    }
    await this.sendPhotos();
  }

  /** What the server has answered for is no longer kept here. */
  private async answered(last: number) {
    const db = await open();
    const step = db.transaction(["events", "last"], "readwrite");
    await step.objectStore("events").delete(IDBKeyRange.bound([this.workshopId, 0], [this.workshopId, last]));
    await step.objectStore("last").put(last, this.workshopId);
    await step.done;
  }

  /** Numbers what is left from where the server is with this device. */
  private async renumber(last: number) {
    const db = await open();
    const step = db.transaction(["events", "last"], "readwrite");
    const store = step.objectStore("events");
    const left = (await store.getAll(range(this.workshopId))) as Kept[];
    await store.delete(range(this.workshopId));
    for (const [i, event] of left.entries()) await store.add({ ...event, number: last + 1 + i });
    await step.objectStore("last").put(last, this.workshopId);
    await step.done;
  }

  private async load() {
    const kept = (await (await open()).getAll("events", range(this.workshopId))) as Kept[];
    const photos = await (await open()).count("photos", photosOf(this.workshopId));
    this.set({ events: kept.map(bare), photos });
  }

  private set(change: Partial<Queue>) {
    this.state = { ...this.state, ...change };
    for (const call of this.watchers) call();
  }
}

/** The bench as it was read last, for when nobody answers. */
export const lastReading = {
  put: async (workshopId: string, reading: Reading) =>
    void (await (await open()).put("readings", reading, workshopId)),
  get: async (workshopId: string) =>
    (await (await open()).get("readings", workshopId)) as Reading | undefined,
};
