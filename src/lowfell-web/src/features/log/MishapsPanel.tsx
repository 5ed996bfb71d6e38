import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Trouble } from "../../kit/Trouble";
import { minutes } from "../../shared/words";

/** What went wrong here, and what goes wrong in general, technique by technique, with what saves it. */
export function MishapsPanel({ setId }: { setId: string }) {
  const mishaps = useQuery({
    queryKey: ["mishaps", setId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/log/{setId}/mishaps", { params: { path: { setId } }, signal })),
  });
  const error = hindered(mishaps);
  if (error) return <Trouble error={error} retry={() => void mishaps.refetch()} />;
  return (
    <div className="columns-[22rem] gap-8">
      {mishaps.data?.map((t) => (
        <section key={t.technique} aria-label={t.technique} className="mb-4 break-inside-avoid">
          <h2 className="border-b border-line text-sm font-semibold">{t.technique}</h2>
          <ul>
            {t.mishaps.map((m) => (
              <li key={m.what} className="py-1 text-sm">
                {m.times > 0 && (
                  <b className="text-amber">▲ here{m.times > 1 ? ` ${m.times} times` : ""}: </b>
                )}
                {m.what}
                <span className="block text-xs text-soft">
                  {m.savedBy || "nothing noted that saved it"}
                  {m.minutes !== null && `; about ${minutes(m.minutes)}`}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
