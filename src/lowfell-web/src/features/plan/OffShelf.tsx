import { useQuery } from "@tanstack/react-query";
import { standInsQuery } from "../../api/queries";
import { Swatch } from "../../kit/Swatch";
import { differs } from "../../shared/words";
import type { Material } from "./types";

const SHOWN = 3;

/** A layer's material that is no longer on the shelf, and what comes nearest to it. */
export function OffShelf(props: {
  material: Material;
  materials: Material[];
  onTake: (materialId: string) => void;
}) {
  const { material, materials, onTake } = props;
  const { data } = useQuery(standInsQuery(material.id));
  return (
    <div className="mb-1 border-l-[3px] border-amber pl-2 text-xs" data-off-shelf={material.name}>
      <p>
        ▲ {material.name}: {data?.length === 0 ? "nothing on it does the same work." : "this comes nearest."}
      </p>
      {data && data.length > 0 && (
        <ul aria-label={`Nearest to ${material.name}`}>
          {data.slice(0, SHOWN).map((s) => {
            const there = materials.find((m) => m.id === s.materialId);
            return (
              <li key={s.materialId} className="flex items-center gap-2 py-0.5">
                <Swatch
                  colour={there?.colour ?? there?.overWhite ?? "transparent"}
                  name=""
                  className="size-4"
                />
                <span className="min-w-0 flex-1">
                  {s.name}: {differs(s.difference)}, {s.words}
                </span>
                <button
                  type="button"
                  className="min-h-6 underline"
                  aria-label={`Take ${s.name} instead`}
                  onClick={() => onTake(s.materialId)}
                >
                  Take it
                </button>
              </li>
            );
          })}
        </ul>
      )}
    </div>
  );
}
