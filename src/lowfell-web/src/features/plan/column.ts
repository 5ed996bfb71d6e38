import type { SeenReading } from "./parts";
import type { Layer } from "./stack";
import type { Material, Sheet, TechniqueInfo } from "./types";

/** What the column of layers shows and calls. */
export type ColumnProps = {
  layers: Layer[];
  reading: SeenReading;
  sheet: Sheet;
  workshopId: string;
  materials: Material[];
  byId: Map<string, Material>;
  techniques: TechniqueInfo[];
  selected: string | null;
  editing: string | null;
  peel: number;
  newestOnTop: boolean;
  fault?: { field: string; message: string }[];
  onOrder: () => void;
  onSelect: (id: string | null) => void;
  onEdit: (id: string | null) => void;
  onChange: (layer: Layer, field: string) => void;
  onMove: (id: string, by: number) => void;
  onRemove: (id: string) => void;
  onDuplicate: (id: string) => void;
  onPreview: (draft: Layer[]) => void;
  onReorder: (layers: Layer[]) => void;
  onOver: (stepId: string, surfaces: string[], words: string) => void;
  focusRow: (id: string | null) => void;
};
