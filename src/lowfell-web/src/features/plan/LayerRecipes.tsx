import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { recipesQuery } from "../../api/queries";
import { Menu } from "../../kit/Menu";
import { inParts, KeepRecipe } from "../../shared/KeepRecipe";
import type { Layer } from "./stack";

/** Kept mixes for a layer, and the way to keep the one it has. */
export function LayerRecipes(props: {
  layer: Layer;
  workshopId: string;
  onTake: (paint: Layer["paint"], dilution: Layer["dilution"]) => void;
}) {
  const { layer, workshopId, onTake } = props;
  const { data: recipes } = useQuery(recipesQuery(workshopId));
  const [keeping, setKeeping] = useState(false);
  const mixed = layer.paint.length > 1 || (layer.paint.length === 1 && !!layer.dilution);
  const entries = (recipes ?? [])
    .filter((r) => r.paint.length > 0)
    .map((r) => ({ text: `${r.name}, ${r.thinned}`, run: () => onTake(r.paint, r.dilution) }));
  const keep = { text: "Keep this mix as a recipe…", run: () => setKeeping(true) };
  if (!mixed && entries.length === 0) return null;
  return (
    <span className="ml-3 inline-flex text-xs">
      <Menu
        label="Recipes"
        says="Recipes"
        groups={[
          ...(entries.length > 0 ? [{ name: "Take", entries }] : []),
          ...(mixed ? [{ entries: [keep] }] : []),
        ]}
      />
      {keeping && (
        <KeepRecipe
          workshopId={workshopId}
          parts={inParts(layer.paint, layer.dilution ?? null)}
          begin=""
          onClose={() => setKeeping(false)}
        />
      )}
    </span>
  );
}
