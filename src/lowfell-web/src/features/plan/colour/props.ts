import type { Schema } from "../../../api/client";
import type { Layer } from "../stack";
import type { Material, Sheet, TechniqueInfo } from "../types";

/** What the colours of a zone are shown from. */
export type ColourProps = {
  sheet: Sheet;
  setId: string;
  workshopId: string;
  layers: Layer[];
  reading: Schema["Reading"];
  layer: Layer | undefined;
  materials: Material[];
  techniques: TechniqueInfo[];
  byId: Map<string, Material>;
  onChange: (layer: Layer, field: string) => void;
  onTurn: (id: string, change: Partial<Layer>) => void;
  onReread: () => void;
  /** The layers as they are when it is called. */
  now: () => Layer[];
};
