import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";
import { Swatch } from "../../kit/Swatch";
import { differs } from "../../shared/words";

/** What on the shelf comes nearest to a colour, alone or two mixed in whole parts. */
export function Nearest(props: { workshopId: string; colour: string; onOpen: (id: string) => void }) {
  const { workshopId, colour, onOpen } = props;
  const found = useQuery({
    queryKey: ["nearest", workshopId, colour],
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/shelf/{workshopId}/nearest", {
          params: { path: { workshopId } },
          body: { colour, count: 12, outOfStockToo: false },
          signal,
        }),
      ),
  });
  return (
    <section aria-labelledby="nearest" className="mt-3 max-w-2xl">
      <h2 id="nearest" className="mb-1.5 text-xs text-soft">
        Nearest to {colour} in stock, painted on a mid-grey card until it hides
      </h2>
      <ol className="border-t border-line" aria-busy={found.isPending} data-nearest={found.data?.length ?? 0}>
        {found.data?.map((n) => (
          <li
            key={n.paint.map((p) => `${p.materialId}${p.parts}`).join()}
            className="flex items-center gap-3 border-b border-line py-1"
          >
            <span className="grid w-28 shrink-0 grid-cols-2 bg-ground p-1">
              <Swatch colour={colour} name="wanted" className="h-8 w-full" />
              <Swatch colour={n.colour} name="this" className="h-8 w-full" />
            </span>
            <span className="min-w-0 flex-1">
              {n.paint.map((p, i) => (
                <span key={p.materialId}>
                  {i > 0 && " + "}
                  {n.paint.length > 1 && `${p.parts} `}
                  <button type="button" className="underline" onClick={() => onOpen(p.materialId)}>
                    {p.name}
                  </button>
                </span>
              ))}
              <span className="block text-xs text-soft">
                {n.words} · {n.coats} coat{n.coats === 1 ? "" : "s"}
                {!n.hides && ", ground shows"}
              </span>
            </span>
            <b>{differs(n.difference)}</b>
          </li>
        ))}
      </ol>
      {found.data?.length === 0 && <p className="text-soft">No opaque paint is in stock.</p>}
    </section>
  );
}
