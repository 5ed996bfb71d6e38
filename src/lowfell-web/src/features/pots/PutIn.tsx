import type { Schema } from "../../api/client";
import { Choice } from "../../kit/Field";
import type { Draft } from "./pots";

/** More than this nobody stirs into one jar, and the server takes no more. */
const MOST = 12;

/** Another component for the jar. */
export function PutIn(props: {
  draft: Draft;
  materials: Schema["MaterialCard"][];
  onPut: (materialId: string) => void;
}) {
  if (props.draft.parts.length >= MOST)
    return <p className="mt-2 text-xs text-soft">A jar takes up to {MOST} materials; take one out first.</p>;
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
