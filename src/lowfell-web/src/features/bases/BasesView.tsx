import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { useCommands } from "../../kit/keys";
import { Trouble } from "../../kit/Trouble";
import { TraySheet } from "./TraySheet";

/** How the tops of bases are laid out, design by design. */
export function Component() {
  const { setId = "", designId } = useParams();
  const list = useQuery({
    queryKey: ["bases", setId],
    queryFn: ({ signal }) => take(api.GET("/api/bases/{setId}", { params: { path: { setId } }, signal })),
  });
  const designs = list.data?.designs ?? [];
  const chosen = designs.find((d) => d.designId === designId) ?? designs[0];
  const error = hindered(list);
  useCommands("Bases", [], { view: !chosen, ready: !!list.data || !!error });
  if (error) return <Trouble error={error} retry={() => void list.refetch()} />;
  if (!list.data) return <p className="p-6 text-soft">Reading the bases…</p>;
  if (!chosen)
    return (
      <p className="p-6 text-soft">
        No design of this set is a base. A design with the outline of a base gets its top laid out here.
      </p>
    );
  return (
    <div className="flex h-full min-h-0 flex-col overflow-y-auto lg:overflow-hidden print:block print:h-auto">
      {designs.length > 1 && (
        <ul
          aria-label="Bases"
          className="no-print flex flex-wrap gap-3 border-b border-line px-5 py-1.5 text-sm"
        >
          {designs.map((d) => (
            <li key={d.designId}>
              <Link
                to={`/bases/${setId}/${d.designId}`}
                replace
                aria-current={d === chosen ? "page" : undefined}
                className={d === chosen ? "font-semibold" : "underline"}
              >
                {d.name} ({d.pieces})
              </Link>
            </li>
          ))}
        </ul>
      )}
      <div className="min-h-0 flex-1 print:block">
        <TraySheet key={chosen.designId} setId={setId} designId={chosen.designId} />
      </div>
    </div>
  );
}
