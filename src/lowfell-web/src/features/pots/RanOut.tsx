import { write } from "../../api/writes";
import { useQuery } from "@tanstack/react-query";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Swatch } from "../../kit/Swatch";
import { ml } from "../../shared/words";
import { short, type Draft, type Place, type Reading } from "./pots";
import { Refusal } from "./Refusal";
import { useStep, type StepProps } from "./useStep";

/** A pot that ran out in the middle of a batch: what is done, what lands closest, and which pieces to keep apart. */
export function RanOut(props: StepProps & { reading: Reading; onRemix: (draft: Draft) => void }) {
  const { setId, pot } = props;
  const { send, general } = useStep(() => {});
  const ranOut = useQuery({
    queryKey: ["pots", setId, "ran-out", pot.id, pot.version],
    queryFn: ({ signal }) =>
      take(api.GET("/api/pots/{setId}/{id}/ran-out", { params: { path: { setId, id: pot.id } }, signal })),
    retry: false,
  });
  const said = ranOut.data;
  const here = (p: Place) => p.zoneId === said?.zoneId && p.layerId === said.layerId;
  const mix = props.reading.mixes.find((m) => m.places.some(here));
  const place = mix?.places.find(here);
  const names = (done: boolean) =>
    said?.pieces
      .filter((p) => p.done === done)
      .map((p) => p.label)
      .join(", ") || "none";
  return (
    <section
      aria-labelledby="ran-out"
      className="mt-4 border border-line bg-card px-3 py-2 text-xs"
      data-ran-out
    >
      <div className="flex items-baseline gap-2">
        <h3 id="ran-out" className="flex-1 text-sm font-semibold">
          {pot.label} ran out
        </h3>
        <Button onClick={props.onClose}>Close</Button>
      </div>
      {pot.ml > 0 && (
        <p className="mt-1 flex flex-wrap items-center gap-2">
          By the book {short(pot.ml)} ml are left.
          <Button
            tone="plain"
            onClick={() =>
              void send(
                (id) =>
                  write((headers) =>
                    api.POST("/api/pots/{setId}/{id}/correct", {
                      headers,
                      params: { path: { setId, id: pot.id } },
                      body: { id, version: pot.version, leftMl: 0, note: "ran out" },
                    }),
                  ),
                () => `${pot.label} is empty.`,
              )
            }
          >
            It is empty
          </Button>
        </p>
      )}
      <Refusal says={general} />
      {ranOut.error && (
        <Refusal
          says={ranOut.error instanceof Refused ? ranOut.error.message : "This could not be worked out."}
        />
      )}
      {said && (
        <>
          <dl className="mt-1 grid grid-cols-[74px_1fr] gap-y-0.5">
            <dt className="text-soft">Where</dt>
            <dd>{said.zone}</dd>
            <dt className="text-soft">Done</dt>
            <dd>{names(true)}</dd>
            <dt className="text-soft">To do</dt>
            <dd className="font-semibold">{names(false)}</dd>
          </dl>
          {said.neededMl === 0 ? (
            <p className="mt-2">By the plan, what is left is enough for the rest.</p>
          ) : said.options.length === 0 ? (
            <p className="mt-2">
              The shelf has nothing that makes {ml(said.neededMl)} of anything like it. Buy more of what is in
              it, and match it then.
            </p>
          ) : (
            <>
              <h4 className="mt-2 font-semibold">
                {ml(said.neededMl)} more: what lands closest, under everything that follows (predicted)
              </h4>
              <ol>
                {said.options.map((o) => (
                  <li
                    key={o.recipeKey}
                    data-remix={o.name}
                    className="grid grid-cols-[minmax(0,1fr)] sm:grid-cols-[96px_1fr_auto] items-start gap-3 border-t border-line py-1.5"
                  >
                    <Beside
                      done={[said.doneRaised, said.doneField, said.doneRecess]}
                      next={[o.raised, o.field, o.recess]}
                    />
                    <div>
                      <p>
                        <b>{o.name}</b> {o.dilution === "neat" ? "" : `thinned ${o.dilution}`}
                        {o.same && " · the same recipe"}
                      </p>
                      {o.difference >= 1 && <p>Comes out {o.words}.</p>}
                      <p data-difference>{o.seam}</p>
                    </div>
                    <Button
                      tone="plain"
                      aria-label={`Mix ${o.name}`}
                      onClick={() =>
                        props.onRemix({
                          parts: partsOf(o),
                          totalMl: Math.ceil(said.neededMl * 10) / 10,
                          technique: place?.technique ?? "base coat",
                          tool: place?.tool ?? "brush",
                          needleMm: null,
                          bar: null,
                          standsFor: mix?.recipeKey ?? "",
                        })
                      }
                    >
                      Mix this
                    </Button>
                  </li>
                ))}
              </ol>
              {said.pourIn && <p className="mt-1">{said.pourIn}</p>}
            </>
          )}
        </>
      )}
    </section>
  );
}

/** A recipe's key holds its parts exactly; amounts are rounded to what a pot keeps. */
const partsOf = (o: Schema["RemixDto"]) => {
  const exact = new Map(
    o.recipeKey.split("+").map((part) => {
      const [id = "", parts = "1"] = part.split("*");
      return [id, Number(parts)];
    }),
  );
  return o.amounts.map((a) => ({
    materialId: a.materialId,
    parts: exact.get(a.materialId.replaceAll("-", "")) ?? a.ml,
  }));
};

/** Done above, to do below, at each position: one line where they touch is all that should be seen. */
function Beside({ done, next }: { done: string[]; next: string[] }) {
  return (
    <div className="bg-ground p-1.5">
      {[done, next].map((row, k) => (
        <div key={k} className="flex">
          {row.map((c, i) => (
            <Swatch
              key={i}
              colour={c}
              name={`${k === 0 ? "done" : "to do"}, ${["raised", "field", "recess"][i]}`}
              className="h-4 flex-1"
            />
          ))}
        </div>
      ))}
    </div>
  );
}
