import { write } from "../../api/writes";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Swatch } from "../../kit/Swatch";
import { useSay } from "../../kit/Toast";

/** What looking has taught of a material's strength; every look can be taken back. */
export function Taught(props: { material: Schema["MaterialCard"]; onChanged: () => Promise<unknown> }) {
  const { material, onChanged } = props;
  const say = useSay();
  const looks = useQuery({
    queryKey: ["calibrations", material.id, material.version],
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/shelf/materials/{id}/calibrations", { params: { path: { id: material.id } }, signal }),
      ),
  });
  if (!looks.data || looks.data.length === 0) return null;
  const percent = (factor: number) => `${Math.round(factor * 100)} %`;
  const takeBack = async (id: string) => {
    await write((headers) =>
      api.POST("/api/shelf/calibrations/{id}/take-back", { headers, params: { path: { id } } }),
    );
    await onChanged();
    await looks.refetch();
    say("Taken back. The look stays in the history but no longer counts.");
  };
  return (
    <section className="mt-5" aria-label="What looking taught">
      <h3 className="text-sm font-semibold">What looking taught</h3>
      <p className="text-xs text-soft">
        It hides {percent(material.hidingFactor)} and tints {percent(material.tintFactor)} of what was
        entered.
      </p>
      <ul className="mt-1 text-xs">
        {looks.data.map((l) => (
          <li key={l.id} className="flex items-center gap-2 border-t border-line py-1">
            <span className="grid w-14 shrink-0 grid-cols-2">
              <Swatch colour={l.predictedBefore} name="predicted" className="h-6 w-full" />
              <Swatch colour={l.observed} name="seen" className="h-6 w-full" />
            </span>
            <span className={`min-w-0 flex-1 ${l.takenBackAt ? "text-soft line-through" : ""}`}>
              <span className="block truncate">
                {l.place}, {l.position}
              </span>
              {new Date(l.at).toLocaleDateString("en-GB")} · hiding × {l.hidingStep.toFixed(2)} · tint ×{" "}
              {l.tintStep.toFixed(2)}
            </span>
            {l.takenBackAt ? (
              <span className="text-soft">taken back</span>
            ) : (
              <Button onClick={() => void takeBack(l.id)}>Take back</Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
