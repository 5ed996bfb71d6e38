import { useInfiniteQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { Inline } from "../../kit/Inline";
import { Trouble } from "../../kit/Trouble";
import { shrink } from "../../shared/photo";
import { useChange } from "../../shared/useChange";
import type { Photo } from "./types";

/** Photographs of a set: to add to, to say what they show, and two of them side by side. */
export function Photos({ setId, workshopId }: { setId: string; workshopId: string }) {
  const [change, busy] = useChange(workshopId);
  const queries = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const photos = useInfiniteQuery({
    queryKey: ["photos", setId],
    initialPageParam: "",
    queryFn: ({ signal, pageParam }) =>
      take(
        api.GET("/api/log/{setId}/photos", {
          params: { path: { setId }, query: { most: 60, ...(pageParam ? { before: pageParam } : {}) } },
          signal,
        }),
      ),
    getNextPageParam: (page) => page.before ?? undefined,
  });
  const error = hindered(photos);
  if (error) return <Trouble error={error} retry={() => void photos.refetch()} />;
  const all = photos.data?.pages.flatMap((p) => p.photos) ?? [];
  const add = async (files: FileList) => {
    for (const picture of files) {
      const id = crypto.randomUUID() as string;
      const data = await shrink(picture);
      await change("The photograph is kept.", (headers) =>
        api.POST("/api/log/{setId}/photos", {
          params: { path: { setId } },
          headers,
          body: { id, data, takenAt: new Date(picture.lastModified).toISOString() },
        }),
      );
    }
    await queries.invalidateQueries({ queryKey: ["photos", setId] });
  };
  const store = (photo: Photo, words: string, body: { words?: string; putAway?: boolean }) =>
    change(words, (headers) =>
      api.PUT("/api/log/{setId}/photos/{photoId}", {
        params: { path: { setId, photoId: photo.id } },
        headers,
        body: { version: photo.version, ...body },
      }),
    );
  const pair = chosen.map((id) => all.find((p) => p.id === id)).filter((p) => p !== undefined);
  return (
    <>
      <div className="no-print mb-3 flex flex-wrap items-center gap-3">
        <Button tone="plain" disabled={busy} onClick={() => file.current?.click()}>
          Add photographs…
        </Button>
        <input
          ref={file}
          type="file"
          accept="image/jpeg,image/png,image/webp"
          multiple
          aria-label="Photographs to add"
          tabIndex={-1}
          className="sr-only"
          onChange={(e) => {
            const files = e.target.files;
            if (files?.length) void add(files).finally(() => (e.target.value = ""));
          }}
        />
        <p className="text-xs text-soft">
          Only what is to be seen is kept: nothing of the camera or the place. Choose two to lay them side by
          side.
        </p>
      </div>
      {pair.length === 2 && <SideBySide setId={setId} photos={pair} onEnd={() => setChosen([])} />}
      {photos.data && all.length === 0 && <p className="text-soft">No photographs yet.</p>}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] gap-3">
        {all.map((p) => (
          <li key={p.id} data-photo={p.id} className="text-xs">
            <button
              type="button"
              aria-pressed={chosen.includes(p.id)}
              className={`block w-full overflow-hidden rounded-[3px] border-2 ${chosen.includes(p.id) ? "border-tide" : "border-line"}`}
              onClick={() =>
                setChosen((c) => (c.includes(p.id) ? c.filter((x) => x !== p.id) : [...c.slice(-1), p.id]))
              }
            >
              <img
                src={`/api/log/${setId}/photos/${p.id}/small.jpg`}
                alt={p.words || `Photograph of ${p.takenAt.slice(0, 10)}`}
                width={p.width}
                height={p.height}
                loading="lazy"
                className="h-32 w-full object-cover"
              />
            </button>
            <Inline
              label="What it shows"
              value={p.words}
              most={500}
              empty
              placeholder="what it shows"
              onStore={(words) => store(p, "Said what it shows.", { words })}
            />
            <span className="flex justify-between text-soft">
              {p.takenAt.slice(0, 10)} {p.piece}
              <button
                type="button"
                className="min-h-6 underline disabled:opacity-45"
                disabled={busy}
                onClick={() => void store(p, "The photograph is put away.", { putAway: true })}
              >
                Put away
              </button>
            </span>
          </li>
        ))}
      </ul>
      {photos.hasNextPage && (
        <Button className="mt-3" onClick={() => void photos.fetchNextPage()}>
          Earlier
        </Button>
      )}
    </>
  );
}

/** Before and after: the older one on the left. */
function SideBySide(props: { setId: string; photos: Photo[]; onEnd: () => void }) {
  const [before, after] = [...props.photos].sort((a, b) => a.takenAt.localeCompare(b.takenAt));
  return (
    <section aria-label="Before and after" className="mb-4 rounded-[3px] border border-line bg-aside p-3">
      <div className="grid gap-3 md:grid-cols-2">
        {[before!, after!].map((p, i) => (
          <figure key={p.id}>
            <img
              src={`/api/log/${props.setId}/photos/${p.id}.jpg`}
              alt={p.words || (i === 0 ? "Before" : "After")}
              className="max-h-[60vh] w-full rounded-[3px] object-contain"
            />
            <figcaption className="mt-1 text-xs">
              <b>{i === 0 ? "Before" : "After"}</b> {p.takenAt.slice(0, 10)} {p.words}
            </figcaption>
          </figure>
        ))}
      </div>
      <Button className="no-print mt-2" onClick={props.onEnd}>
        Lay them back
      </Button>
    </section>
  );
}
