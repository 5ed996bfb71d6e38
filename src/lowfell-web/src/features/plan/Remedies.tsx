import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { ChangeWords } from "../../shared/ChangeWords";
import { apply, type Edit, type Layer } from "./stack";

/** Ways out of a remark; the one under the pointer or in focus says what it would do before it is pressed. */
export function Remedies(props: {
  zoneId: string;
  pieces: number;
  layers: Layer[];
  remedies: Schema["RemedyDto"][];
  onApply: (edits: readonly Edit[]) => void;
}) {
  const [looked, setLooked] = useState<string | null>(null);
  const remedy = props.remedies.find((r) => r.id === looked);
  const after = remedy && apply(props.layers, remedy.edits);
  const change = useQuery({
    // Ids of inserted layers are new each time; what is asked is the same.
    queryKey: ["change", props.zoneId, looked, JSON.stringify(props.layers)],
    enabled: !!after,
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/plan/zones/{zoneId}/change", {
          params: { path: { zoneId: props.zoneId } },
          body: { layers: props.layers, after: after! },
          signal,
        }),
      ),
  });
  return (
    <div className="mt-1.5" onMouseLeave={() => setLooked(null)}>
      <div className="flex flex-wrap gap-1.5">
        {props.remedies.map((r, i) => (
          <Button
            key={r.id}
            data-remedy={r.id}
            tone={i === 0 ? "plain" : "quiet"}
            className="!whitespace-normal text-left"
            onMouseEnter={() => setLooked(r.id)}
            onFocus={() => setLooked(r.id)}
            onBlur={() => setLooked(null)}
            onClick={() => props.onApply(r.edits)}
          >
            {r.text}
          </Button>
        ))}
      </div>
      {remedy && (
        <div className="mt-1.5 border-t border-line pt-1.5" aria-live="polite">
          {change.data ? (
            <ChangeWords change={change.data} pieces={props.pieces} />
          ) : (
            <p className="text-soft">{change.error ? "It could not be worked out." : "Working it out…"}</p>
          )}
        </div>
      )}
    </div>
  );
}
