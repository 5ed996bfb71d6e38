import { useQuery } from "@tanstack/react-query";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Trouble } from "../../kit/Trouble";
import { byEvening, clockIn, dayWords } from "./byEvening";

/** What happened to one piece, evening by evening, newest first, with its photographs. */
export function Story({ setId, pieceId, label }: { setId: string; pieceId: string; label: string }) {
  const story = useQuery({
    queryKey: ["story", setId, pieceId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/pieces/{setId}/{pieceId}/story", { params: { path: { setId, pieceId } }, signal })),
  });
  const photos = useQuery({
    queryKey: ["photos", setId, "of", pieceId],
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/log/{setId}/photos", {
          params: { path: { setId }, query: { pieceId, most: 12 } },
          signal,
        }),
      ),
  });
  const error = hindered(story);
  if (error) return <Trouble error={error} retry={() => void story.refetch()} />;
  if (!story.data) return <p className="mt-5 text-soft">Looking up what happened…</p>;
  const { timeZone, design } = story.data;
  // When hands came onto something says little; what they did says it.
  const told = story.data.events.filter((e) => e.kind !== "begun" && e.kind !== "paused");
  return (
    <section aria-label={`The story of ${label}`} className="mt-5">
      <h2 className="font-semibold">The story of {label}</h2>
      {!!photos.data?.photos.length && (
        <ul aria-label={`Photographs of ${label}`} className="mt-2 grid grid-cols-2 gap-1.5">
          {photos.data.photos.map((p) => (
            <li key={p.id}>
              <a href={`/api/log/${setId}/photos/${p.id}.jpg`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/log/${setId}/photos/${p.id}/small.jpg`}
                  alt={p.words || `Photograph of ${label}, ${dayWords(p.takenAt.slice(0, 10))}`}
                  className="aspect-[4/3] w-full rounded-[2px] border border-line object-cover"
                />
              </a>
            </li>
          ))}
        </ul>
      )}
      {told.length === 0 && <p className="text-soft">Nothing has happened to it yet.</p>}
      {byEvening(told).map(({ day, events: all }) => (
        <section key={day} aria-label={dayWords(day)} className="mt-2">
          <h3 className="border-b border-ink/40 text-xs font-semibold">{dayWords(day)}</h3>
          <ol className="relative ml-1.5 border-l border-line pl-3">
            {all.map((e) => (
              <Happened
                key={e.id}
                event={{ ...e, zone: e.zone.replace(` on ${design}`, "") }}
                timeZone={timeZone}
              />
            ))}
          </ol>
        </section>
      ))}
    </section>
  );
}

const wrong = new Set<Schema["WorkKind"]>(["mishap", "wiped"]);

function Happened({ event: e, timeZone }: { event: Schema["StoryEvent"]; timeZone: string }) {
  return (
    <li className="relative py-1 text-xs">
      <span
        aria-hidden="true"
        className={`absolute top-[7px] -left-[16px] size-[7px] rounded-full border ${
          wrong.has(e.kind)
            ? "border-amber bg-amber"
            : e.kind === "given"
              ? "border-ink bg-ink"
              : "border-ink bg-aside"
        }`}
      />
      <span className={e.takenBack ? "line-through" : ""}>
        <b>{e.technique || e.kind}</b>
        {e.technique && e.kind !== "given" && `: ${e.kind}`}
        {e.zone && ` on ${e.zone}`}
        {e.pot && `, from ${e.pot}`}
      </span>
      {e.takenBack && " taken back"}
      {e.note && <span className="block">{e.note}</span>}
      {e.savedBy && <span className="block">Saved by: {e.savedBy}</span>}
      <span className="block text-soft">
        {clockIn(e.at, timeZone)}, {e.painter}
      </span>
    </li>
  );
}
