import { api } from "../../api/client";
import { Button } from "../../kit/Button";
import { Swatch } from "../../kit/Swatch";
import { useChange } from "../../shared/useChange";
import { strengthWords } from "./strength";
import type { Trial } from "./types";

/** Prediction against what was seen, field by field, and what all of them together teach. */
export function LessonPanel(props: { trial: Trial; workshopId: string; onChoose: (cell: string) => void }) {
  const { trial } = props;
  const [change, busy] = useChange(props.workshopId);
  const seen = trial.cells.filter((c) => c.looks.length > 0);
  if (seen.length === 0)
    return (
      <p className="mt-4 border-t border-line pt-3 text-soft">
        Nothing was seen yet. Say of some fields what they look like, and all of them together teach the
        paints.
      </p>
    );
  const lesson = trial.lesson;
  const told = lesson?.taught.map((t) => ({ ...t, words: strengthWords(t) })).filter((t) => t.words) ?? [];
  const teach = () =>
    change("The paints are reckoned as the tile teaches.", (headers) =>
      api.POST("/api/trials/{setId}/{trialId}/teach", {
        params: { path: { setId: trial.setId, trialId: trial.id! } },
        headers,
      }),
    );
  return (
    <section aria-labelledby="lesson" className="mt-4 border-t border-line pt-3">
      <table className="w-full text-xs">
        <caption className="sr-only">Predicted and seen</caption>
        <thead>
          <tr className="text-left text-soft">
            <th className="font-normal">field</th>
            <th className="font-normal">predicted</th>
            <th className="font-normal">seen</th>
            <th className="font-normal">apart</th>
          </tr>
        </thead>
        <tbody>
          {seen.flatMap((c) =>
            c.looks.map((l) => (
              <tr key={`${c.cell} ${l.position}`} className="border-t border-line/60">
                <th scope="row" className="py-1 text-left">
                  <button type="button" className="min-h-6 underline" onClick={() => props.onChoose(c.cell)}>
                    {c.number}
                  </button>{" "}
                  <span className="font-normal text-soft">{l.position}</span>
                </th>
                <td>
                  <Swatch colour={l.predicted} name={l.predicted} className="h-5 w-12" />
                </td>
                <td>
                  <Swatch colour={l.observed} name={l.observed} className="h-5 w-12" />
                </td>
                <td className={l.believed !== null && l.believed < 0.3 ? "text-amber" : ""}>
                  {l.difference.toFixed(1)}
                </td>
              </tr>
            )),
          )}
        </tbody>
      </table>
      {lesson && (
        <div className="mt-3 border-l-4 border-tide bg-tide-wash px-3 py-2">
          <h2 id="lesson" className="font-semibold">
            What the tile teaches
          </h2>
          {lesson.takenOver ? (
            <p>
              It is taken over: the paints are reckoned so, and predictions are{" "}
              {lesson.missedBefore.toFixed(1)} off on the mean. What is seen from here on teaches more.
            </p>
          ) : told.length === 0 ? (
            <p>Nothing new: the paints are as they were thought to be.</p>
          ) : (
            <>
              <ul>
                {told.map((t) => (
                  <li key={t.materialId}>
                    {t.material} {t.words}.
                  </li>
                ))}
              </ul>
              <p className="text-xs text-soft">
                Predictions are {lesson.missedBefore.toFixed(1)} off on the mean; with that,{" "}
                {lesson.missedAfter.toFixed(1)}. Each can be taken back at its material on the shelf.
              </p>
              <Button className="mt-1" tone="plain" disabled={busy} onClick={() => void teach()}>
                Take it over
              </Button>
            </>
          )}
        </div>
      )}
    </section>
  );
}
