import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Trouble } from "../../kit/Trouble";

/** What happened to one piece, newest first. */
export function Story({ setId, pieceId, label }: { setId: string; pieceId: string; label: string }) {
  const story = useQuery({
    queryKey: ["story", setId, pieceId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/pieces/{setId}/{pieceId}/story", { params: { path: { setId, pieceId } }, signal })),
  });
  const error = hindered(story);
  if (error) return <Trouble error={error} retry={() => void story.refetch()} />;
  return (
    <section aria-label={`The story of ${label}`} className="mt-5">
      <h2 className="font-semibold">The story of {label}</h2>
      {story.data?.events.length === 0 && <p className="text-soft">Nothing has happened to it yet.</p>}
      <ul>
        {story.data?.events.map((e) => (
          <li key={e.id} className="border-b border-line py-1 text-xs">
            <span className={e.takenBack ? "line-through" : ""}>
              <b>{e.kind}</b>
              {e.technique && `, ${e.technique}`}
              {e.zone && ` on ${e.zone}`}
              {e.pot && `, from ${e.pot}`}
            </span>
            {e.takenBack && " taken back"}
            {e.note && <span className="block">{e.note}</span>}
            {e.savedBy && <span className="block">Saved by: {e.savedBy}</span>}
            <span className="block text-soft">
              {e.at.slice(0, 16).replace("T", " ")}, {e.painter}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
