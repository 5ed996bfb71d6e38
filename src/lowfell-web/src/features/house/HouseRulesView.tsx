import { write } from "../../api/writes";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { moved, severities } from "../../kit/severity";
import { useSay } from "../../kit/Toast";
import { Trouble } from "../../kit/Trouble";

type Answers = Record<string, string>;

/** The workshop's answers where practitioners disagree, and what another answer would do to the sets on the bench. */
export function Component() {
  const { workshopId = "" } = useParams();
  const queries = useQueryClient();
  const say = useSay();
  const path = { workshopId };
  const house = useQuery({
    queryKey: ["house", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/workshops/{workshopId}/house-rules", { params: { path }, signal })),
  });
  const [changed, setChanged] = useState<Answers>({});
  const [fault, setFault] = useState<Refused | null>(null);
  const pending = Object.keys(changed).length > 0;
  const effect = useQuery({
    queryKey: ["house", workshopId, "effect", changed],
    enabled: pending,
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/workshops/{workshopId}/house-rules/preview", {
          params: { path },
          body: { version: null, answers: changed },
          signal,
        }),
      ),
  });
  useCommands("House rules", [], { view: true, ready: !!house.error || !!house.data });
  if (house.error) return <Trouble error={house.error} retry={() => void house.refetch()} />;
  if (!house.data) return <p className="p-6 text-soft">Reading the house rules…</p>;
  const store = async () => {
    try {
      const answer = await write((headers) =>
        api.PUT("/api/workshops/{workshopId}/house-rules", {
          headers,
          params: { path },
          body: { version: house.data.version, answers: changed },
        }),
      );
      queries.setQueryData(["house", workshopId], answer);
      setChanged({});
      setFault(null);
      for (const key of ["overview", "remarks", "zone", "workshops", "change"])
        void queries.invalidateQueries({ queryKey: [key] });
      say("House rules stored.");
    } catch (error) {
      if (!(error instanceof Refused)) return;
      setFault(error);
      if (error.refusal.current)
        queries.setQueryData(["house", workshopId], error.refusal.current as Schema["HouseRulesDto"]);
    }
  };
  const choose = (q: Schema["QuestionDto"], word: string) =>
    setChanged((answers) => {
      const next = { ...answers, [q.school]: word };
      if (word === q.answer) delete next[q.school];
      return next;
    });
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_258px] xl:grid-cols-[minmax(0,1fr)_296px]">
      <div className="min-h-0 overflow-y-auto px-5 pt-3 pb-6">
        <h1 className="text-lg font-semibold">House rules</h1>
        <p className="max-w-2xl text-xs text-soft">
          Practitioners disagree on these, and both sides have reasons. Remarks and remedies on{" "}
          {house.data.workshop} follow your answers. The first of each pair is the cautious one.
        </p>
        {house.data.questions.map((q) => (
          <Question
            key={q.school}
            question={q}
            answer={changed[q.school] ?? q.answer}
            onChoose={(w) => choose(q, w)}
          />
        ))}
        <BarePercent house={house.data} />
      </div>
      <aside
        aria-label="What other answers would do"
        className="min-h-0 overflow-y-auto border-l border-line bg-aside px-3.5 pt-3 pb-4"
      >
        <h2 className="mb-2 text-xs text-soft">What it does to the sets on the bench</h2>
        {!pending && (
          <p className="text-xs">
            Choose another answer and see here what it would change, before it is stored.
          </p>
        )}
        {pending && effect.data?.map((e) => <Effect key={e.setId} effect={e} />)}
        {pending && effect.data?.length === 0 && (
          <p className="text-xs">There are no sets on this bench yet.</p>
        )}
        {pending && effect.isPending && <p className="text-xs text-soft">Looking at every stack…</p>}
        {fault && (
          <p role="alert" className="mt-2 border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs">
            {fault.message}{" "}
            {fault.refusal.current ? "The stored answers are shown now; your choice is kept." : ""}
          </p>
        )}
        {pending && (
          <div className="mt-3 flex gap-2">
            <Button tone="go" onClick={() => void store()}>
              Store these rules
            </Button>
            <Button onClick={() => setChanged({})}>Back</Button>
          </div>
        )}
      </aside>
    </div>
  );
}

function Question(props: {
  question: Schema["QuestionDto"];
  answer: string;
  onChoose: (word: string) => void;
}) {
  const { question: q, answer } = props;
  return (
    <fieldset className="mt-3 border-t border-line pt-2" data-school={q.school}>
      <legend className="pr-3 font-semibold">
        {q.question}
        {answer !== q.answer && <span className="ml-2 text-xs font-normal text-tide">not stored yet</span>}
      </legend>
      <div className="grid grid-cols-2 gap-3">
        {q.answers.map((a) => (
          <label
            key={a.word}
            className={`grid grid-cols-[18px_1fr] gap-x-2 border px-2.5 py-1.5 text-xs ${a.word === answer ? "border-tide bg-tide-wash" : "border-line bg-card hover:border-ink"}`}
          >
            <input
              type="radio"
              name={q.school}
              className="mt-0.5"
              checked={a.word === answer}
              onChange={() => props.onChoose(a.word)}
            />
            <span>
              <b className="text-sm">{a.text}</b>
              <span className="block">
                <span className="text-soft">Gains: </span>
                {a.gains}
              </span>
              <span className="block">
                <span className="text-soft">Costs: </span>
                {a.costs}
              </span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** Not a school: a habit of speech, asked once where it first comes up and changed here. */
function BarePercent({ house }: { house: Schema["HouseRulesDto"] }) {
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

function Effect({ effect }: { effect: Schema["HouseEffect"] }) {
  return (
    <section aria-label={effect.set} className="mb-3 text-xs">
      <p data-effect>
        <b>{effect.set}:</b> {moved(effect.gone.length, effect.come.length)}.
      </p>
      {(
        [
          ["Go", effect.gone],
          ["Come", effect.come],
        ] as const
      ).map(
        ([word, list]) =>
          list.length > 0 && (
            <div key={word} className="mt-1">
              <h3 className="text-soft">{word}</h3>
              <ul>
                {list.map((m, i) => (
                  <li key={i} className="border-t border-line py-0.5">
                    <span className={severities[m.severity].tint} aria-hidden="true">
                      {severities[m.severity].sign}{" "}
                    </span>
                    <span className="sr-only">{severities[m.severity].word}: </span>
                    {m.title},{" "}
                    <Link className="underline" to={`/plan/${effect.setId}/${m.zoneId}`}>
                      {m.design}, {m.zone}
                    </Link>
                  </li>
                ))}
              </ul>
            </div>
          ),
      )}
    </section>
  );
}
