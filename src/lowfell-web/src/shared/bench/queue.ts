import { api, Refused, take, type Refusal, type Schema } from "../../api/client";
import { isOpen, pauseMs } from "../../api/writes";
import { benchClock } from "./clock";
import { bare, byId, byNumber, open, type Aside, type Kept, type KeptPhoto } from "./store";
import type { BenchEvent, Reading, Told } from "./types";

/** A photograph that waits, and what is in its way. */
export type WaitingPhoto = { id: string; takenAt: string; held: string };

/** What is on its way from this device to the server, and why it has not got there. */
export type Queue = {
  events: readonly BenchEvent[];
  /** Events that the server has answered for, and that are in nothing that was read of it yet. */
  answered: readonly BenchEvent[];
  /** Why it waits; empty while it does not have to. */
  why: string;
  /** It is because this device may not come in any more. */
  sentAway: boolean;
  /** Events that did not fit, kept whole until somebody decided about them. */
  aside: readonly Aside[];
  photos: readonly WaitingPhoto[];
  /** Events that this browser has no room to keep: they live as long as the page. */
  unkept: number;
};

const AT_ONCE = 40;

/** Whether what stands in the way passes by itself. */
const passes = (why: Refusal) => isOpen(why) || why.status >= 500;

/** Whether it is the events as they stand that cannot be read. */
const isUnreadable = (why: Refusal) => [400, 413, 415, 422].includes(why.status);

/** Whether it is the picture itself that is none. */
const isNoPicture = (why: Refusal) => why.status === 413 || why.errors.some((e) => e.field === "data");

/**
 * Events of one workshop on their way: kept in the browser before anything else is done with them, numbered as they come, sent in that
 * order, and gone from here only when the server has answered for them. What does not fit is set aside, whole, and the rest goes on.
 */
export class BenchQueue {
  private state: Queue = {
    events: [],
    answered: [],
    why: "",
    sentAway: false,
    aside: [],
    photos: [],
    unkept: 0,
  };
  private readonly watchers = new Set<() => void>();
  /** What the browser's own store did not take. */
  private memory: Kept[] = [];
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
    const event = { ...told, ...benchClock().stamp(), id: crypto.randomUUID() as string };
    const db = await open();
    try {
      if (this.memory.length > 0) throw new Error("What was told before is not kept yet.");
      const step = db.transaction(["events", "last"], "readwrite");
      const newest = await step.objectStore("events").openKeyCursor(byNumber(this.workshopId), "prev");
      const used = (await step.objectStore("last").get(this.workshopId)) as number | undefined;
      const number = Math.max(used ?? 0, (newest?.key as [string, number] | undefined)?.[1] ?? 0) + 1;
      await step.objectStore("events").add({ ...event, number, workshopId: this.workshopId } satisfies Kept);
      await step.done;
    } catch {
      // No room in this browser: it is sent all the same, and says that it is not kept.
      const used = ((await db.get("last", this.workshopId)) as number | undefined) ?? 0;
      const before = [...this.state.events.map((e) => e.number), used];
      this.memory.push({ ...event, number: Math.max(...before) + 1, workshopId: this.workshopId });
    }
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
      takenAt: new Date(benchClock().serverNow()).toISOString(),
      data,
    };
    await (await open()).add("photos", kept);
    await this.load();
    void this.flush();
  }

  /** Sends photographs again that something was in the way of. */
  async photosAgain() {
    const step = (await open()).transaction("photos", "readwrite");
    for (const photo of (await step.store.getAll(byId(this.workshopId))) as KeptPhoto[])
      if (photo.held) await step.store.put({ ...photo, held: "" });
    await step.done;
    await this.load();
    await this.flush();
  }

  /** Lets something go that a person does not want: a photograph, or an event that did not fit. */
  async letGo(store: "photos" | "aside", id: string) {
    await (await open()).delete(store, [this.workshopId, id]);
    await this.load();
  }

  /** Numbers go on from what the server knows of this device, should this browser have forgotten. */
  async learn(last: number) {
    if (this.state.answered.some((e) => e.number <= last))
      this.set({ answered: this.state.answered.filter((e) => e.number > last) });
    const db = await open();
    const used = ((await db.get("last", this.workshopId)) as number | undefined) ?? 0;
    if (last > used) await db.put("last", last, this.workshopId).catch(() => undefined);
  }

  /** Sends what there is, the oldest first, one page of this browser at a time. */
  async flush() {
    if (this.sending) return;
    this.sending = true;
    window.clearTimeout(this.timer);
    try {
      await navigator.locks.request(`lowfell-bench ${this.workshopId}`, () => this.send());
      this.attempt = 0;
      this.set({ why: "", sentAway: false });
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      this.set({ why: error.message, sentAway: [401, 403].includes(error.refusal.status) });
      if (passes(error.refusal))
        this.timer = window.setTimeout(() => void this.flush(), pauseMs(this.attempt++));
    } finally {
      this.sending = false;
    }
    // One that came while the last was on its way.
    if (this.state.events.length + this.toSend().length > 0 && !this.state.why) void this.flush();
  }

  private toSend = () => this.state.photos.filter((p) => !p.held);

  private async send() {
    // Where one of several cannot be read, they go one by one until it is found.
    let most = AT_ONCE;
    for (await this.load(); this.state.events.length > 0; await this.load()) {
      const events = this.state.events.slice(0, most);
      try {
        const answer = await take(
          api.POST("/api/bench/{workshopId}/events", {
            params: { path: { workshopId: this.workshopId } },
            body: { ...benchClock().sent(), events },
          }),
        );
        await this.came(events, answer);
        this.settled();
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        const last = (error.refusal.current as { lastNumber?: number } | undefined)?.lastNumber;
        if (typeof last === "number") await this.renumber(last);
        else if (!isUnreadable(error.refusal)) throw error;
        else if (events.length > 1) most = 1;
        else await this.setAside(events[0]!, error.message);
      }
    }
    await this.tellOfAside();
    await this.sendPhotos();
  }

  private async came(events: readonly BenchEvent[], answer: Schema["BenchAnswer"]) {
    const refused = new Map(answer.refused.map((r) => [r.number, r]));
    const fitted = events.flatMap((e) => {
      const why = refused.get(e.number);
      if (!why) return [e];
      const left = why.pieceIds && e.pieceIds?.filter((p) => !why.pieceIds!.includes(p));
      return left?.length ? [{ ...e, pieceIds: left }] : [];
    });
    this.set({ answered: [...this.state.answered, ...fitted] });
    const aside = events.flatMap((event): Aside[] => {
      const why = refused.get(event.number);
      const kept = why?.pieceIds ? { ...event, pieceIds: why.pieceIds } : event;
      return why
        ? [{ id: event.id, workshopId: this.workshopId, event: kept, why: why.why, atServer: true }]
        : [];
    });
    this.memory = this.memory.filter((e) => e.number > answer.lastNumber);
    const step = (await open()).transaction(["events", "last", "aside"], "readwrite");
    for (const one of aside) await step.objectStore("aside").put(one);
    await step.objectStore("events").delete(byNumber(this.workshopId, answer.lastNumber));
    await step.objectStore("last").put(answer.lastNumber, this.workshopId);
    await step.done;
  }

  /** One that cannot even be read leaves the line, whole, so that the rest can go on: those behind it move up. */
  private async setAside(event: BenchEvent, why: string) {
    const step = (await open()).transaction(["events", "aside"], "readwrite");
    await step
      .objectStore("aside")
      .put({ id: event.id, workshopId: this.workshopId, event, why, atServer: false } satisfies Aside);
    await step.objectStore("events").delete([this.workshopId, event.number]);
    await step.done;
    this.memory = this.memory.filter((e) => e.id !== event.id);
    await this.renumber(event.number - 1);
  }

  /** What left the line is kept at the server too. */
  private async tellOfAside() {
    for (const one of this.state.aside.filter((a) => !a.atServer)) {
      const { id, event, why } = one;
      await take(
        api.POST("/api/bench/{workshopId}/unfit", {
          params: { path: { workshopId: this.workshopId } },
          headers: { "Idempotency-Key": id },
          body: {
            id,
            told: JSON.stringify(event),
            why,
            toldAt: new Date(Date.parse(event.toldAt) + (event.offsetMs ?? 0)).toISOString(),
          },
        }),
      );
      await (await open()).put("aside", { ...one, atServer: true });
    }
    await this.load();
  }

  /** Photographs go last: they are large, and the bench does not wait for them. One leaves this device when it was taken in. */
  private async sendPhotos() {
    const db = await open();
    for (const { id } of this.toSend()) {
      const photo = (await db.get("photos", [this.workshopId, id])) as KeptPhoto | undefined;
      if (!photo) continue;
      const { setId, eventId, takenAt, data } = photo;
      try {
        await take(
          api.POST("/api/log/{setId}/photos", {
            params: { path: { setId } },
            headers: { "Idempotency-Key": id },
            body: { id, eventId, takenAt, data },
          }),
        );
        await db.delete("photos", [this.workshopId, id]);
      } catch (error) {
        if (!(error instanceof Refused) || passes(error.refusal)) throw error;
        const held = isNoPicture(error.refusal)
          ? `It is no picture that can be kept: ${error.message}`
          : error.message;
        await db.put("photos", { ...photo, held });
      }
      await this.load();
    }
  }

  /** Numbers what is left from where the server is with this device. */
  private async renumber(last: number) {
    const db = await open();
    const step = db.transaction(["events", "last"], "readwrite");
    const store = step.objectStore("events");
    const left = (await store.getAll(byNumber(this.workshopId))) as Kept[];
    await store.delete(byNumber(this.workshopId));
    for (const [i, event] of left.entries()) await store.add({ ...event, number: last + 1 + i });
    await step.objectStore("last").put(last, this.workshopId);
    await step.done;
    this.memory = this.memory.map((e, i) => ({ ...e, number: last + 1 + left.length + i }));
  }

  private async load() {
    const db = await open();
    const kept = [...((await db.getAll("events", byNumber(this.workshopId))) as Kept[]), ...this.memory];
    const aside = (await db.getAll("aside", byId(this.workshopId))) as Aside[];
    const photos = (await db.getAll("photos", byId(this.workshopId))) as KeptPhoto[];
    this.set({
      events: kept.map(bare),
      aside,
      photos: photos.map(({ id, takenAt, held }) => ({ id, takenAt, held: held ?? "" })),
      unkept: this.memory.length,
    });
  }

  private set(change: Partial<Queue>) {
    this.state = { ...this.state, ...change };
    for (const call of this.watchers) call();
  }
}

/** The bench as it was read last, for when nobody answers. */
export const lastReading = {
  put: async (workshopId: string, reading: Reading) =>
    void (await (await open()).put("readings", reading, workshopId).catch(() => undefined)),
  get: async (workshopId: string) =>
    (await (await open()).get("readings", workshopId)) as Reading | undefined,
};
