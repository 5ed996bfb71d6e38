import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, take } from "../../api/client";
import { box } from "../../kit/Frame";
import type { Hits } from "./types";

/** Where something that was found is to be seen. */
function addressOf(hit: Hits["found"][number], workshopId: string, setId: string): string {
  switch (hit.kind) {
    case "material":
      return `/shelf/${workshopId}/${hit.id}`;
    case "treatment":
      return `/treatments/${workshopId}/${hit.id}`;
    case "pot":
      return `/pots/${setId}`;
    default:
      return hit.zoneId && hit.setId ? `/pieces/${hit.setId}/${hit.zoneId}` : `/log/${hit.setId ?? setId}`;
  }
}

/** Looks through log, photographs, materials, pots and treatments as it is typed. */
export function Finder({ workshopId, setId }: { workshopId: string; setId: string }) {
  const [text, setText] = useState("");
  const q = text.trim();
  const found = useQuery({
    queryKey: ["found", workshopId, q],
    enabled: /[\p{L}\p{N}]/u.test(q),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      take(api.GET("/api/search/{workshopId}", { params: { path: { workshopId }, query: { q } }, signal })),
  });
  return (
    <div role="search" className="no-print relative w-72 max-md:w-full">
      <input
        id="look-through"
        type="search"
        aria-label="Look through log, shelf and pots"
        placeholder="Look through log, shelf, pots"
        maxLength={200}
        autoComplete="off"
        className={`${box} border-line`}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === "Escape") setText("");
        }}
      />
      {q && found.data && (
        <div className="absolute z-20 mt-1 max-h-[60vh] w-[min(32rem,90vw)] overflow-y-auto rounded-[3px] border border-line bg-card p-2 text-sm shadow-lg">
          <p role="status" className="px-1 text-xs text-soft">
            {found.data.found.length === 0
              ? `Nothing has “${q}”.`
              : `${found.data.found.length}${found.data.more ? " and more" : ""} found`}
          </p>
          <ul aria-label="Found">
            {found.data.found.map((h) => (
              <li key={`${h.kind} ${h.id}`} data-hit={h.kind}>
                <Link
                  className="block min-h-6 rounded-[3px] px-1 py-1 hover:bg-aside focus-visible:bg-aside"
                  to={addressOf(h, workshopId, setId)}
                >
                  <b>{h.title}</b> <span className="text-xs text-soft">{h.kind}</span>
                  {h.words && <span className="block text-xs">{h.words}</span>}
                  {h.at && <span className="block text-xs text-soft">{h.at.slice(0, 10)}</span>}
                </Link>
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
