import { memo, useEffect, useState } from "react";
import type { Schema } from "../../api/client";
import { Tabs } from "../../kit/Tabs";
import { useLater } from "../../kit/useLater";
import { Amounts } from "./Amounts";
import { FETCH_AFTER_MS } from "./later";
import { HalfDone, type Progress } from "./HalfDone";
import { useSoFar } from "./soFar";
import { Remarks } from "./Remarks";
import { WentWrong } from "./WentWrong";
import type { Edit, Layer } from "./stack";
import type { Material, Sheet, Tab, TechniqueInfo } from "./types";
import type { useStack } from "./useStack";

// Nobody looks at colour and sight first: they come once the first view stands.
const colour = () => import("./colour/ColourPanel").then((m) => m.ColourPanel);
const sight = () => import("./colour/SightPanel").then((m) => m.SightPanel);

/**
 * What a stack says, beside it: its remarks and amounts, the colours of a layer, or what is seen of it from the table. It is not drawn
 * again as long as that is the same: a slider draws column and section many times a second.
 */
export const StackSays = memo(function StackSays(props: {
  tab: Tab;
  onTab: (tab: Tab) => void;
  said: { layers: Layer[]; reading: Schema["Reading"] };
  saving: ReturnType<typeof useStack>["saving"];
  progress: Progress;
  sheet: Sheet;
  overview: Schema["PlanOverview"];
  materials: Material[];
  byId: Map<string, Material>;
  techniques: TechniqueInfo[];
  selected: string | null;
  onSelect: (id: string | null) => void;
  calls: {
    onApply: (edits: readonly Edit[]) => void;
    onLivedWith: () => void;
    onLeaveOut: (id: string) => void;
    onProgress: (next: Progress) => void;
    onChange: (layer: Layer, field: string) => void;
    onTurn: (id: string, change: Partial<Layer>) => void;
    onReread: () => void;
    now: () => Layer[];
  };
}) {
  const { tab, sheet, overview, materials, byId, techniques, selected, calls } = props;
  const { layers, reading } = props.said;
  const open = reading.findings.filter((f) => !f.accepted);
  const index = layers.findIndex((l) => l.id === selected);
  const soFar = useSoFar(sheet.zone.id);
  const [stands, setStands] = useState(false);
  useEffect(() => {
    const timer = window.setTimeout(() => setStands(true), FETCH_AFTER_MS);
    return () => window.clearTimeout(timer);
  }, []);
  const ColourPanel = useLater(colour, stands || tab === "colour");
  const SightPanel = useLater(sight, stands || tab === "sight");
  return (
    <aside
      aria-label="What the stack says"
      className="border-line bg-aside px-3.5 pt-3 pb-4 max-md:mt-3 max-md:min-h-0 max-md:contain-content max-md:border-t md:pane md:border-l"
    >
      <Tabs
        label="What to look at"
        value={tab}
        onChange={props.onTab}
        tabs={[
          {
            value: "remarks",
            text: `Remarks${open.length > 0 ? ` ${open.length}` : ""}`,
            body: () => (
              <>
                <HalfDone
                  layers={layers}
                  soFar={soFar}
                  progress={props.progress}
                  onChange={calls.onProgress}
                />
                <Remarks
                  findings={reading.findings}
                  layers={layers}
                  soFar={soFar}
                  laid={props.progress.laid}
                  onProgress={calls.onProgress}
                  zoneId={sheet.zone.id}
                  pieces={sheet.zone.pieces}
                  workshopId={overview.workshopId}
                  stored={props.saving === "saved" && props.progress.laid === 0}
                  selected={selected}
                  onSelect={props.onSelect}
                  onApply={calls.onApply}
                  onReread={calls.onLivedWith}
                />
                {index >= 0 && <WentWrong setId={overview.setId} layer={layers[index]!} />}
                {index >= 0 && (
                  <Amounts
                    layer={layers[index]!}
                    number={index + 1}
                    reading={reading}
                    sheet={sheet}
                    workshopId={overview.workshopId}
                    byId={byId}
                  />
                )}
              </>
            ),
          },
          {
            value: "colour",
            text: "Colour",
            body: () =>
              ColourPanel && (
                <ColourPanel
                  sheet={sheet}
                  setId={overview.setId}
                  workshopId={overview.workshopId}
                  layers={layers}
                  reading={reading}
                  layer={layers[index]}
                  materials={materials}
                  techniques={techniques}
                  byId={byId}
                  onChange={calls.onChange}
                  onTurn={calls.onTurn}
                  onReread={calls.onReread}
                  now={calls.now}
                />
              ),
          },
          {
            value: "sight",
            text: "Sight",
            body: () =>
              SightPanel && (
                <SightPanel
                  sheet={sheet}
                  setId={overview.setId}
                  tableMetres={overview.tableMetres}
                  layers={layers}
                  byId={byId}
                  onSelect={props.onSelect}
                  onLeaveOut={calls.onLeaveOut}
                />
              ),
          },
        ]}
      />
    </aside>
  );
});
