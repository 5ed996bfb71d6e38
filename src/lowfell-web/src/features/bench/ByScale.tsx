import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { useInstruments } from "../../shared/instruments";
import { plural } from "../../kit/severity";
import { begun, empty, turned, weighed } from "./byScale";

const LOOK_MS = 400,
  GRAMS = 1000;

/** What was weighed of a material: ml, and drops as they come nearest. */
export type Measured = { materialId: string; ml: number; drops: number };

/** Pours a mix onto the scale, part by part: how many more drops, until it is as near as drops bring it. */
export function ByScale(props: {
  workshopId: string;
  mix: Schema["BenchMix"];
  onMeasured: (all: Measured[]) => void;
}) {
  const { workshopId, mix } = props;
  const scale = useInstruments(workshopId, LOOK_MS)?.scale;
  const [state, setState] = useState(() => empty(mix.parts.length));
  const rest = scale?.atRest ? scale.grams : null;
  const [seen, setSeen] = useState<number | null>(null);
  if (rest !== null && rest !== seen) {
    setSeen(rest);
    setState((w) => weighed(w, rest));
  }
  const grams = state.poured.map((g) => Math.round(g * GRAMS) / GRAMS);
  const { data: says } = useQuery({
    queryKey: ["pour", workshopId, mix.key, ...grams],
    enabled: state.zero !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/instruments/{workshopId}/pour", {
          params: { path: { workshopId } },
          signal,
          body: {
            ml: mix.ml,
            parts: mix.parts.map((p, i) => ({
              materialId: p.materialId,
              parts: p.drops * p.unitMl,
              grams: grams[i]!,
            })),
          },
        }),
      ),
  });
  const next = says?.nextId ? mix.parts.findIndex((p) => p.materialId === says.nextId) : -1;
  // The part is poured: what comes next is counted from what lies there now.
  if (next >= 0 && rest !== null && state.zero !== null && next !== state.part)
    setState(turned(state, next, rest));
  if (!scale) return null;
  const done = says && !says.nextId && state.zero !== null;
  return (
    <section aria-label="By the scale" className="rounded-[3px] border border-line bg-aside px-3 py-2">
      <p className="text-base">
        On {scale.by}: <b>{scale.grams.toFixed(2)} g</b>
        {!scale.atRest && <span className="text-soft">, moving</span>}
      </p>
      {state.zero === null ? (
        <Button
          className="mt-1 min-h-14 px-4 text-base"
          disabled={rest === null}
          onClick={() => rest !== null && setState((w) => begun(w, rest))}
        >
          The empty pot stands on it: begin
        </Button>
      ) : (
        <>
          <p role="status" className="text-lg font-semibold">
            {done
              ? `Mixed: within ${(says.off * 100).toFixed(1)} % of the recipe.`
              : next >= 0 && says
                ? `${plural(says.drops, "drop")} more of ${mix.parts[next]!.name}`
                : "Weighing…"}
          </p>
          {says && (
            <ul className="text-sm text-soft">
              {says.poured.map((p, i) => (
                <li key={p.materialId}>
                  {mix.parts[i]!.name}: {grams[i]!.toFixed(2)} g, {p.ml.toFixed(2)} ml, about{" "}
                  {Math.round(p.drops)} drops{p.usualDensity && " (its density is a usual one: an estimate)"}
                </li>
              ))}
            </ul>
          )}
          {says && says.poured.every((p) => p.ml > 0) && (
            <Button
              tone={done ? "go" : "quiet"}
              className="mt-1 min-h-14 px-4 text-base"
              onClick={() =>
                props.onMeasured(
                  says.poured.map((p) => ({
                    materialId: p.materialId,
                    ml: Math.round(p.ml * 100) / 100,
                    drops: Math.round(p.drops),
                  })),
                )
              }
            >
              Count what was weighed
            </Button>
          )}
        </>
      )}
    </section>
  );
}
