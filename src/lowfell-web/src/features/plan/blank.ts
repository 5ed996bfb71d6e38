import type { Layer } from "./stack";
import type { TechniqueInfo } from "./types";

/** A layer to begin with: a base coat of nothing yet. */
export function blank(techniques: TechniqueInfo[]): Layer {
  const base = techniques.find((t) => t.technique === "base coat")!;
  return {
    id: crypto.randomUUID(),
    technique: "base coat",
    paint: [],
    dilution: null,
    coats: 1,
    region: "all",
    strength: 1,
    tool: base.usualTool,
    drying: "air",
    waitMinutes: null,
    optional: false,
    note: "",
    markMm: null,
    varied: null,
    downTo: null,
    details: null,
    fades: false,
    preparation: "none",
  };
}
