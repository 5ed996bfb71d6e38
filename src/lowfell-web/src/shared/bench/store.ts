import { openDB, type IDBPDatabase } from "idb";
import type { BenchEvent } from "./types";

/** An event as it is kept: whose it is. */
export type Kept = BenchEvent & { workshopId: string };

/** A photograph on its way, and what it was taken at; held while something other than the network is in its way. */
export type KeptPhoto = {
  id: string;
  workshopId: string;
  setId: string;
  eventId: string;
  takenAt: string;
  data: string;
  held?: string;
};

/** An event that did not fit, whole: why, and whether the server keeps it too. */
export type Aside = {
  id: string;
  workshopId: string;
  event: BenchEvent;
  why: string;
  atServer: boolean;
};

let opened: Promise<IDBPDatabase> | null = null;

/** This browser's own store of the bench. */
export const open = () =>
  (opened ??= openDB("lowfell-bench", 3, {
    upgrade: (db, from) => {
      if (from < 1) {
        db.createObjectStore("events", { keyPath: ["workshopId", "number"] });
        db.createObjectStore("last");
        db.createObjectStore("readings");
      }
      if (from < 2) db.createObjectStore("photos", { keyPath: ["workshopId", "id"] });
      if (from < 3) db.createObjectStore("aside", { keyPath: ["workshopId", "id"] });
    },
    // Another page has a newer store: this one lets go of its own, and opens it again when it next needs it.
    blocking: () => {
      void opened?.then((db) => db.close());
      opened = null;
    },
    terminated: () => (opened = null),
  }));

export const byId = (workshopId: string) => IDBKeyRange.bound([workshopId, ""], [workshopId, "\uffff"]);

export const byNumber = (workshopId: string, to = Number.MAX_SAFE_INTEGER) =>
  IDBKeyRange.bound([workshopId, 0], [workshopId, to]);

/** An event as it is sent: whose it is stands in the address. */
export function bare(kept: Kept): BenchEvent {
  const event: BenchEvent & { workshopId?: string } = { ...kept };
  delete event.workshopId;
  return event;
}
