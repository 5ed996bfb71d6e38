import type { Schema } from "../../api/client";
import { Choice } from "../../kit/Field";
import type { Draft } from "./pots";

/** Another component for the jar. */
export function PutIn(props: {
  draft: Draft;
  materials: Schema["MaterialCard"][];
  onPut: (materialId: string) => void;
}) {
  return (
    <div className="mt-2 w-[230px]">
      <Choice
        label="Put in"
        value=""
        options={[
          { value: "", text: "Choose a material" },
          ...props.materials
            .filter((m) => props.draft.parts.every((p) => p.materialId !== m.id))
            .map((m) => ({ value: m.id, text: m.name, group: m.maker || "No maker" })),
        ]}
        onChange={(id) => id && props.onPut(id)}
      />
    </div>
  );
}
