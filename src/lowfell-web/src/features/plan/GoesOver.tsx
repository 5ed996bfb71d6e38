import { Button } from "../../kit/Button";
import type { Layer } from "./stack";
import type { Sheet, TechniqueInfo } from "./types";

/** What a layer goes over besides the surface of its zone; everything first, where the technique usually goes over everything. */
export function GoesOver(props: {
  layer: Layer;
  sheet: Sheet;
  info: TechniqueInfo | undefined;
  onOver: (stepId: string, surfaces: string[], words: string) => void;
}) {
  const { layer, sheet, info, onOver } = props;
  const step = sheet.over.find((o) => o.layerId === layer.id);
  const all = sheet.surfaces.map((s) => s.id);
  const lies = new Set(step?.surfaces);
  const everywhere = all.every((id) => lies.has(id));
  const lay = (surfaces: string[], words: string) => step && onOver(step.stepId, surfaces, words);
  return (
    <div
      role="group"
      aria-label="Goes over"
      className="col-span-full flex flex-wrap items-center gap-1.5 text-xs"
    >
      <span className="text-soft">Goes over</span>
      <Button
        tone={info?.overEverything && !everywhere ? "go" : "quiet"}
        aria-pressed={everywhere}
        disabled={!step || everywhere}
        onClick={() => lay(all, `It goes over all ${all.length} surfaces.`)}
      >
        {everywhere ? "✓ " : ""}Everything
      </Button>
      {sheet.surfaces.map((s) => {
        const on = lies.has(s.id);
        const here = s.id === sheet.surfaceId;
        return (
          <Button
            key={s.id}
            aria-pressed={on || here}
            disabled={!step || here}
            title={
              here ? "The surface of this zone. Take the layer out of the stack to take it off." : undefined
            }
            className={on || here ? "font-semibold" : ""}
            onClick={() =>
              lay(
                on ? [...lies].filter((id) => id !== s.id) : [...lies, s.id],
                on ? `It no longer goes over ${s.name}.` : `It goes over ${s.name} too.`,
              )
            }
          >
            {on || here ? "✓ " : ""}
            {s.name}
          </Button>
        );
      })}
      {!step && <span className="text-soft">as soon as the layer is stored</span>}
      {step && info?.overEverything && !everywhere && (
        <span className="text-soft">{layer.technique} usually goes over everything</span>
      )}
    </div>
  );
}
