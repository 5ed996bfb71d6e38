import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { minutes } from "../../shared/words";
import type { Layer } from "./stack";

/** What went wrong here with the technique of a layer, and what saved it: so that it is thought of before it happens again. */
export function WentWrong({ setId, layer }: { setId: string; layer: Layer }) {
  const { data } = useQuery({
    queryKey: ["mishaps", setId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/log/{setId}/mishaps", { params: { path: { setId } }, signal })),
  });
  const here = data?.find((t) => t.technique === layer.technique)?.mishaps.filter((m) => m.times > 0) ?? [];
  if (here.length === 0) return null;
  return (
    <section aria-labelledby="went-wrong" className="mt-4 text-xs">
      <h2 id="went-wrong" className="mb-1 text-soft">
        Went wrong here before, at {layer.technique}
      </h2>
      <ul>
        {here.map((m) => (
          <li key={m.what} className="py-0.5">
            {m.what}
            <span className="block text-soft">
              {m.savedBy || "nothing noted that saved it"}
              {m.minutes !== null && `; about ${minutes(m.minutes)}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
