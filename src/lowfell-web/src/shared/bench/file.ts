import { bare, byId, byNumber, open, type Aside, type Kept, type KeptPhoto } from "./store";
import type { BenchEvent } from "./types";

/** Everything of the bench that only this browser has, as a file. */
export type Saved = {
  lowfell: "bench";
  version: 1;
  workshopId: string;
  savedAt: string;
  events: BenchEvent[];
  aside: { event: BenchEvent; why: string }[];
  photos: { setId: string; eventId: string; takenAt: string; data: string; id: string }[];
};

/** What has not got to the server, and what did not fit, in one file that can be carried there. */
export async function saved(workshopId: string): Promise<Saved> {
  const db = await open();
  return {
    lowfell: "bench",
    version: 1,
    workshopId,
    savedAt: new Date().toISOString(),
    events: ((await db.getAll("events", byNumber(workshopId))) as Kept[]).map(bare),
    aside: ((await db.getAll("aside", byId(workshopId))) as Aside[]).map(({ event, why }) => ({
      event,
      why,
    })),
    photos: ((await db.getAll("photos", byId(workshopId))) as KeptPhoto[]).map(
      ({ id, setId, eventId, takenAt, data }) => ({ id, setId, eventId, takenAt, data }),
    ),
  };
}

/** Gives the browser a file to keep. */
export function download(name: string, blob: Blob) {
  const address = URL.createObjectURL(blob);
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  window.setTimeout(() => URL.revokeObjectURL(address), 60_000);
}

export async function saveAll(workshopId: string) {
  const what = await saved(workshopId);
  download("lowfell bench.json", new Blob([JSON.stringify(what)], { type: "application/json" }));
}

/** A photograph that waits, as a picture. */
export async function savePhoto(workshopId: string, id: string) {
  const photo = (await (await open()).get("photos", [workshopId, id])) as KeptPhoto | undefined;
  if (!photo) return;
  const bytes = Uint8Array.from(atob(photo.data), (c) => c.charCodeAt(0));
  download(
    `photograph ${photo.takenAt.slice(0, 16).replace(/[T:]/g, "-")}.jpg`,
    new Blob([bytes], { type: "image/jpeg" }),
  );
}

/** A file that was saved so; null where it is none. */
export function readSaved(text: string): Saved | null {
  try {
    const read = JSON.parse(text) as Partial<Saved> | null;
    return read?.lowfell === "bench" &&
      read.version === 1 &&
      Array.isArray(read.events) &&
      Array.isArray(read.aside) &&
      Array.isArray(read.photos)
      ? (read as Saved)
      : null;
  } catch {
    return null;
  }
}
