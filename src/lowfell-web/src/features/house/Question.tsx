import type { Schema } from "../../api/client";

/** Where practitioners disagree: both answers with what they gain and cost. */
export function Question(props: {
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
      <div className="grid gap-3 sm:grid-cols-2">
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
