import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schema } from "../../api/client";
import { write } from "../../api/writes";
import { Button } from "../../kit/Button";
import { useSay } from "../../kit/Toast";

type Meaning = Schema["PercentMeaning"] | null;

/** Not a school: a habit of speech, asked once where it first comes up and changed here. Like the rest, stored when it is said. */
export function BarePercent({ house }: { house: Schema["HouseRulesDto"] }) {
  const queries = useQueryClient();
  const say = useSay();
  const stored: Meaning = house.barePercent ?? null;
  const [chosen, setChosen] = useState<Meaning | undefined>(undefined);
  const pending = chosen !== undefined && chosen !== stored;
  const remember = async (meaning: Meaning) => {
    try {
      const answer = await write((headers) =>
        api.PUT("/api/workshops/{workshopId}/house-rules/bare-percent", {
          headers,
          params: { path: { workshopId: house.workshopId } },
          body: { meaning },
        }),
      );
      queries.setQueryData(["house", house.workshopId], answer);
      setChosen(undefined);
      void queries.invalidateQueries({ queryKey: ["dilution"] });
      say("Stored: what a bare percentage means here.");
    } catch (error) {
      if (error instanceof Refused) say(error.message, true);
    }
  };
  const answers = [
    [null, "Ask each time it comes up"],
    ["of the mix", "40 % of the whole mix is thinner, 60 : 40"],
    ["added", "40 parts of thinner are added to 100 of paint, 100 : 40"],
  ] as const;
  return (
    <fieldset className="mt-3 border-t border-line pt-2" data-school="bare percent">
      <legend className="pr-3 font-semibold">What does “thinned 40 %” mean here?</legend>
      <div className="flex flex-wrap gap-x-5">
        {answers.map(([meaning, text]) => (
          <label key={text} className="flex min-h-6 items-center gap-1.5 text-xs">
            <input
              type="radio"
              name="bare percent"
              checked={(pending ? chosen : stored) === meaning}
              onChange={() => setChosen(meaning)}
            />
            {text}
          </label>
        ))}
      </div>
      {pending && (
        <div className="mt-1.5 flex gap-2">
          <Button tone="go" onClick={() => void remember(chosen)}>
            Store this answer
          </Button>
          <Button onClick={() => setChosen(undefined)}>Back</Button>
        </div>
      )}
    </fieldset>
  );
}
