import { useState } from "react";
import { api, Refused } from "../../api/client";
import { write } from "../../api/writes";
import { readAgain } from "../../api/cache";
import { Button } from "../../kit/Button";
import { plural } from "../../kit/severity";
import { useSay } from "../../kit/Toast";
import { readSaved, type Saved } from "../../shared/bench/file";

const WHY = "It comes from a file that a device saved before it could send it.";

async function bringIn(workshopId: string, file: Saved) {
  const told = [
    ...file.events.map((event) => ({ event, why: WHY })),
    ...file.aside.filter((a) => !file.events.some((e) => e.id === a.event.id)),
  ];
  for (const { event, why } of told)
    await write(
      (headers) =>
        api.POST("/api/bench/{workshopId}/unfit", {
          headers,
          params: { path: { workshopId } },
          body: {
            id: event.id,
            told: JSON.stringify(event),
            why,
            toldAt: new Date(Date.parse(event.toldAt) + (event.offsetMs ?? 0)).toISOString(),
          },
        }),
      event.id,
    );
  for (const { id, setId, eventId, takenAt, data } of file.photos)
    await write(
      (headers) =>
        api.POST("/api/log/{setId}/photos", {
          headers,
          params: { path: { setId } },
          body: { id, eventId, takenAt, data },
        }),
      id,
    );
  return [told.length, file.photos.length] as const;
}

/** Takes in what a device saved as a file because it could not send it: it waits here to be decided about. */
export function FromDevice({ workshopId }: { workshopId: string }) {
  const [busy, setBusy] = useState(false);
  const say = useSay();
  const take = async (file: File) => {
    const saved = readSaved(await file.text());
    if (!saved)
      return say("This is no file that a bench saved. Choose one called “lowfell bench.json”.", true);
    setBusy(true);
    try {
      const [events, photos] = await bringIn(workshopId, saved);
      say(`${plural(events, "event")} and ${plural(photos, "photograph")} are here.`);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      say(error.message, true);
    } finally {
      await readAgain(["work"]);
      setBusy(false);
    }
  };
  return (
    <>
      <Button
        disabled={busy}
        onClick={() => document.querySelector<HTMLInputElement>("#bench-file")?.click()}
      >
        {busy ? "Taking it in…" : "From a device's file…"}
      </Button>
      <input
        id="bench-file"
        type="file"
        accept=".json,application/json"
        aria-label="A file that a device saved"
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) void take(file);
        }}
      />
    </>
  );
}
