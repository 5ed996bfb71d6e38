import { NumberField } from "../../kit/NumberField";
import { Select } from "../../kit/Select";
import { Slide } from "../../kit/Slide";
import { habits, spreadWords, type Draft, type Variation } from "./types";

const LEAST_MM = 0.3,
  MOST_MM = 200,
  LEAST_MARKS = 0.2;

/** What is asked of the plan: where, how large, how many, how wild. */
export function Controls(props: { plan: Variation; draft: Draft; onDraft: (draft: Draft) => void }) {
  const { plan, draft, onDraft } = props;
  const { usual } = plan;
  const set = (change: Partial<Draft>) => onDraft({ ...draft, ...change });
  const spread = draft.spread ?? 0.5;
  return (
    <div className="grid grid-cols-2 items-start gap-x-4 gap-y-2 sm:grid-cols-4">
      {plan.hasMarks && (
        <>
          <Select
            label="Where they lie"
            value={plan.habitByRegion ? usual.habit! : (draft.habit ?? usual.habit!)}
            disabled={plan.habitByRegion}
            hint={plan.habitByRegion ? "by the layer's region" : undefined}
            options={habits}
            onChange={(habit) => set({ habit })}
          />
          <NumberField
            key={`mm ${draft.meanMm ?? usual.meanMm}`}
            label="How large, on the mean"
            unit="mm"
            least={LEAST_MM}
            most={MOST_MM}
            value={draft.meanMm ?? usual.meanMm!}
            onSet={(meanMm) => set({ meanMm: Math.round(meanMm * 10) / 10 })}
          />
          <NumberField
            key={`marks ${draft.marks ?? usual.marks}`}
            label="How many on a piece"
            unit=""
            least={LEAST_MARKS}
            most={plan.mostMarks}
            value={draft.marks ?? Math.min(usual.marks!, plan.mostMarks)}
            onSet={(marks) => set({ marks: Math.round(marks * 10) / 10 })}
          />
          <Slide
            label="From shy to wild"
            says={spreadWords(spread)}
            value={Math.round(spread * 20)}
            min={0}
            max={20}
            step={1}
            valueText={spreadWords(spread)}
            onChange={(n) => set({ spread: n / 20 })}
          />
        </>
      )}
      {plan.canBeDealt && (
        <label className="col-span-2 flex min-h-6 items-center gap-1.5 text-sm sm:col-span-4">
          <input
            type="checkbox"
            checked={draft.dealt ?? false}
            onChange={(e) => set({ dealt: e.target.checked })}
          />
          Deal {plan.paint} to the pieces, one alone or two run together, instead of mixing them
        </label>
      )}
    </div>
  );
}
