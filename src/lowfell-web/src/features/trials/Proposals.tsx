import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import type { Factor } from "./types";

/** Trials that would tell most about a treatment: how far off its prediction is to be expected, now and after each. */
export function Proposals(props: {
  setId: string;
  zoneId: string;
  taken: string | null;
  onTake: (proposal: { words: string; factors: Factor[] }) => void;
}) {
  const { setId, zoneId } = props;
  const [asked, ask] = useState(false);
  const proposals = useQuery({
    queryKey: ["trial", setId, "propose", zoneId],
    enabled: asked && !!zoneId,
    retry: false,
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/trials/{setId}/propose", {
          params: { path: { setId } },
          signal,
          body: { zoneId, position: null, target: null },
        }),
      ),
  });
  if (!asked)
    return (
      <span>
        <Button tone="plain" onClick={() => ask(true)}>
          Propose a trial
        </Button>
      </span>
    );
  const error = hindered(proposals);
  if (error) return <p role="alert">{error.message}</p>;
  if (!proposals.data) return <p className="text-soft">Weighing what each would tell…</p>;
  if (proposals.data.length === 0)
    return <p className="text-soft">Nothing of this treatment has a colour that could be learned.</p>;
  return (
    <fieldset>
      <legend className="text-xs text-soft">
        The finished colour is {proposals.data[0]!.errorNow.toFixed(1)} off on the mean by what is known now;
        after each of these (estimates):
      </legend>
      <ul>
        {proposals.data.map((p) => (
          <li key={p.words}>
            <label className="flex min-h-8 items-center gap-2">
              <input
                type="radio"
                name="proposal"
                checked={props.taken === p.words}
                onChange={() => props.onTake({ words: p.words, factors: [...p.factors] })}
              />
              <span className="min-w-0 flex-1">{p.words}</span>
              <b>{p.errorThen.toFixed(1)}</b>
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
