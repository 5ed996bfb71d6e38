import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { hindered } from "../../api/hindered";
import { api, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Choice } from "../../kit/Field";
import { Trouble } from "../../kit/Trouble";

/** The usual cautions for a stretch of work, and the layers that need them; prints on a page. */
export function CareSheet({ overview }: { overview: Schema["PlanOverview"] }) {
  const [designId, setDesignId] = useState("");
  const care = useQuery({
    queryKey: ["remarks", overview.setId, "care", designId],
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/plan/sets/{setId}/care", {
          params: { path: { setId: overview.setId }, query: designId ? { designId } : {} },
          signal,
        }),
      ),
  });
  const error = hindered(care);
  if (error) return <Trouble error={error} retry={() => void care.refetch()} />;
  return (
    <section aria-labelledby="care" className="max-w-4xl">
      <div className="flex items-end gap-3">
        <h2 id="care" className="text-base font-semibold">
          Care for the work on {care.data?.of ?? "…"}
        </h2>
        <div className="no-print ml-auto flex items-end gap-2">
          <Choice
            label="What you work on"
            value={designId}
            options={[
              { value: "", text: "The whole set" },
              ...overview.designs.map((d) => ({ value: d.id, text: d.name })),
            ]}
            onChange={setDesignId}
          />
          <Button className="h-[30px]" onClick={() => window.print()}>
            Print
          </Button>
        </div>
      </div>
      <p className="mt-1 text-xs text-soft">{care.data?.deference}</p>
      {care.data?.groups.length === 0 && (
        <p className="mt-4 text-soft">Ordinary water-based brushwork: nothing in it needs special care.</p>
      )}
      <ul className="mt-2">
        {care.data?.groups.map((g) => (
          <li key={g.hazard} className="border-t border-line py-2">
            <p className="font-semibold">{g.text}</p>
            <p className="text-xs text-soft">
              {summed(g.layers).map(([where, layers]) => (
                <span key={where} className="mr-3 inline-block">
                  {where}: {layers}
                </span>
              ))}
            </p>
          </li>
        ))}
      </ul>
      {care.data && care.data.labels.length > 0 && (
        <>
          <h3 className="mt-3 text-sm font-semibold">On the labels</h3>
          <dl className="grid grid-cols-1 sm:grid-cols-[180px_1fr] text-xs">
            {care.data.labels.map((l) => (
              <div key={l.materialId} className="contents">
                <dt className="border-t border-line py-1">{l.material}</dt>
                <dd className="border-t border-line py-1 text-soft">{l.says}</dd>
              </div>
            ))}
          </dl>
        </>
      )}
    </section>
  );
}

/** Layers by design and zone: "Deck 1, 4". */
function summed(layers: Schema["CareLayer"][]): [string, string][] {
  const by = new Map<string, number[]>();
  for (const l of layers) {
    const key = `${l.design}, ${l.zone}`;
    by.set(key, [...(by.get(key) ?? []), l.number]);
  }
  return [...by].map(([where, numbers]) => [
    where,
    `layer${numbers.length === 1 ? "" : "s"} ${numbers.join(", ")}`,
  ]);
}
