import { useQueryClient } from "@tanstack/react-query";
import { api, type Schema } from "../../api/client";
import { write } from "../../api/writes";

/** Not a school: a habit of speech, asked once where it first comes up and changed here. */
export function BarePercent({ house }: { house: Schema["HouseRulesDto"] }) {
  const queries = useQueryClient();
  const remember = async (meaning: Schema["PercentMeaning"] | null) => {
    const answer = await write((headers) =>
      api.PUT("/api/workshops/{workshopId}/house-rules/bare-percent", {
        headers,
        params: { path: { workshopId: house.workshopId } },
        body: { meaning },
      }),
    );
    queries.setQueryData(["house", house.workshopId], answer);
    void queries.invalidateQueries({ queryKey: ["dilution"] });
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
              checked={(house.barePercent ?? null) === meaning}
              onChange={() => void remember(meaning)}
            />
            {text}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
