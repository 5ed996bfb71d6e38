import { useQuery, type UseQueryResult } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { ColourField } from "../../kit/ColourField";
import { Select } from "../../kit/Select";
import type { Schema } from "../../api/client";
import type { Factor } from "./types";

type Wish = "decides most" | "darker" | "lighter" | "colour";

const wishes: readonly { value: Wish; text: string }[] = [
  { value: "decides most", text: "what decides most" },
  { value: "darker", text: "how it gets darker" },
  { value: "lighter", text: "how it gets lighter" },
  { value: "colour", text: "how it comes near a colour" },
];

const COLOUR = /^#[0-9a-f]{6}$/i;

/** Trials that would tell most about a treatment: how far off its prediction is to be expected, now and after each. */
export function Proposals(props: {
  setId: string;
  zoneId: string;
  taken: string | null;
  onTake: (proposal: { words: string; factors: Factor[]; tile: Schema["TileDto"] }) => void;
}) {
  const { setId, zoneId } = props;
  const [asked, ask] = useState(false);
  const [wish, setWish] = useState<Wish>("decides most");
  const [colour, setColour] = useState("");
  const target = wish === "colour" && COLOUR.test(colour) ? colour : null;
  const proposals = useQuery({
    queryKey: ["trial", setId, "propose", zoneId, wish, target],
    enabled: asked && !!zoneId && (wish !== "colour" || !!target),
    retry: false,
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/trials/{setId}/propose", {
          params: { path: { setId } },
          signal,
          body: { zoneId, position: null, target, wish: wish === "colour" ? null : wish },
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
  return (
    <div className="grid gap-2">
      <Select label="To find out" value={wish} options={wishes} onChange={setWish} />
      {wish === "colour" && (
        <ColourField label="What it should come near" value={colour} onChange={setColour} />
      )}
      {(wish !== "colour" || target) && (
        <Found proposals={proposals} taken={props.taken} onTake={props.onTake} />
      )}
    </div>
  );
}

function Found(props: {
  proposals: UseQueryResult<readonly Schema["TrialProposal"][]>;
  taken: string | null;
  onTake: (proposal: { words: string; factors: Factor[]; tile: Schema["TileDto"] }) => void;
}) {
  const { proposals } = props;
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
                onChange={() => props.onTake({ words: p.words, factors: [...p.factors], tile: p.tile })}
              />
              <span className="min-w-0 flex-1">
                {p.words}
                <span className="block text-xs text-soft">
                  {p.fields} fields on {p.tile.widthMm} × {p.tile.heightMm} mm, each gains{" "}
                  {p.gainPerField.toFixed(2)}
                  {p.nearest != null && ` · the nearest comes within ${p.nearest.toFixed(1)}`}
                </span>
              </span>
              <b>{p.errorThen.toFixed(1)}</b>
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
