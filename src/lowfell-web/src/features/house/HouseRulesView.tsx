import { write } from "../../api/writes";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { hindered } from "../../api/hindered";
import { useParams } from "react-router";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { useSay } from "../../kit/Toast";
import { Trouble } from "../../kit/Trouble";
import { Alert } from "../../kit/Alert";
import { useDraft } from "../../kit/form/useDraft";
import { BarePercent } from "./BarePercent";
import { Effect } from "./Effect";
import { Question } from "./Question";

type Answers = Record<string, string>;

const none: Answers = {};
const isAnswers = (kept: unknown): kept is Answers =>
  typeof kept === "object" && kept !== null && Object.values(kept).every((w) => typeof w === "string");

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
  const [changed, setChanged] = useDraft(`house ${workshopId}`, none, isAnswers);
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
  const error = hindered(house);
  useCommands("House rules", [], { view: true, ready: !!error || !!house.data });
  if (error) return <Trouble error={error} retry={() => void house.refetch()} />;
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
      setChanged(none);
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
  const choose = (q: Schema["QuestionDto"], word: string) => {
    const next = { ...changed, [q.school]: word };
    if (word === q.answer) delete next[q.school];
    setChanged(next);
  };
  return (
    <div className="h-full min-h-0 overflow-y-auto md:grid md:grid-cols-[minmax(0,1fr)_258px] md:overflow-visible xl:grid-cols-[minmax(0,1fr)_296px]">
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
        className="min-h-0 overflow-y-auto border-line bg-aside px-3.5 pt-3 pb-4 max-md:sticky max-md:bottom-0 max-md:max-h-[45vh] max-md:border-t md:border-l"
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
          <Alert className="mt-2">
            {fault.message}{" "}
            {fault.refusal.current ? "The stored answers are shown now; your choice is kept." : ""}
          </Alert>
        )}
        {pending && (
          <div className="mt-3 flex gap-2">
            <Button tone="go" onClick={() => void store()}>
              Store these rules
            </Button>
            <Button onClick={() => setChanged(none)}>Back</Button>
          </div>
        )}
      </aside>
    </div>
  );
}
