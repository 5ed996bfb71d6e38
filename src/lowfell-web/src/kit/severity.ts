import type { Schema } from "../api/client";

/** How each severity looks: a shape and a word, never the colour alone. */
export const severities = {
  stop: {
    box: "border-signal bg-signal-wash",
    tint: "text-signal",
    edge: "border-l-signal",
    word: "Stop",
    sign: "■",
  },
  caution: {
    box: "border-amber bg-amber-wash",
    tint: "text-amber",
    edge: "border-l-amber",
    word: "Caution",
    sign: "▲",
  },
  hint: {
    box: "border-tide bg-tide-wash",
    tint: "text-tide",
    edge: "border-l-tide",
    word: "Hint",
    sign: "●",
  },
} as const satisfies Record<Schema["Severity"], unknown>;

export const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

/** "2 remarks go, 1 comes": what an edit or another house rule does to what is said. */
export function moved(gone: number, come: number): string {
  if (gone === 0 && come === 0) return "no remark goes or comes";
  const goes = `${plural(gone, "remark")} ${gone === 1 ? "goes" : "go"}`;
  const comes = gone === 0 ? plural(come, "remark") : String(come);
  return [gone > 0 && goes, come > 0 && `${comes} ${come === 1 ? "comes" : "come"}`]
    .filter(Boolean)
    .join(", ");
}
