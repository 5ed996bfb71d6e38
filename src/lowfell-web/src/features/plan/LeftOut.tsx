import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { useChange } from "../../shared/useChange";

/** Layers that were left out for want of time: they are not in the stack, and can be put back to where they were. */
export function LeftOut(props: {
  sheet: Schema["ZoneSheet"];
  workshopId: string;
  onSettled: () => Promise<void>;
}) {
  const { sheet, workshopId } = props;
  const [change, busy] = useChange(workshopId);
  if (sheet.leftOut.length === 0) return null;
  const putBack = async (layerId: string, words: string) => {
    await props.onSettled();
    await change(`${words} is back.`, (headers) =>
      api.POST("/api/sessions/{workshopId}/left-out/back", {
        params: { path: { workshopId } },
        headers,
        body: { layers: [{ treatmentId: sheet.treatmentId, layerId }] },
      }),
    );
  };
  return (
    <section aria-label="Left out" className="mt-1 border-l-[3px] border-line pl-2 text-xs">
      <b>Left out</b>{" "}
      <span className="text-soft">for want of time; neither predicted nor counted below.</span>
      <ul>
        {sheet.leftOut.map((l) => (
          <li key={l.layerId} className="flex flex-wrap items-center gap-2">
            <s className="text-soft">{l.words}</s>
            <Button
              disabled={busy}
              aria-label={`Put ${l.words} back`}
              onClick={() => void putBack(l.layerId, l.words)}
            >
              Put back
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
