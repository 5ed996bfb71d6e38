import { useState } from "react";
import { useParams } from "react-router";
import { hindered } from "../../api/hindered";
import { useCommands } from "../../kit/keys";
import { Trouble } from "../../kit/Trouble";
import { UnfitList } from "../../shared/unfit/UnfitList";
import { useUnfit, type Unfit } from "../../shared/unfit/useUnfit";
import { CorrectDialog } from "./CorrectDialog";
import { FromDevice } from "./FromDevice";

/** What was told at the bench and did not fit: kept whole, until somebody decides what becomes of it. */
export function Component() {
  const { workshopId = "" } = useParams();
  const unfit = useUnfit(workshopId);
  const [corrects, setCorrects] = useState<Unfit | null>(null);
  const error = hindered(unfit);
  useCommands("What did not fit", [], { view: true, ready: !!error || !!unfit.data });
  if (error) return <Trouble error={error} retry={() => void unfit.refetch()} />;
  if (!unfit.data) return <p className="p-6 text-soft">Looking for what did not fit…</p>;
  return (
    <div className="h-full overflow-y-auto px-5 pt-3 pb-8">
      <div className="mx-auto max-w-4xl">
        <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <h1 className="text-lg font-semibold">What did not fit</h1>
          <span className="ml-auto">
            <FromDevice workshopId={workshopId} />
          </span>
        </div>
        <p className="mt-1 max-w-2xl text-sm text-soft">
          What a device told and could not be taken in as it was told: a piece that was removed meanwhile, a
          note that is too long. Nothing of it is lost. Take it in once it fits, put it right, or let it go.
        </p>
        <div className="mt-3 text-sm">
          <UnfitList
            workshopId={workshopId}
            entries={unfit.data.entries}
            onCorrect={setCorrects}
            empty={
              <p className="max-w-xl border-l-[3px] border-line bg-card px-3 py-2">
                Everything that was told has found its place.
              </p>
            }
          />
        </div>
      </div>
      {corrects && (
        <CorrectDialog workshopId={workshopId} entry={corrects} onClose={() => setCorrects(null)} />
      )}
    </div>
  );
}
