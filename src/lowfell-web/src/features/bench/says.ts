import type { Schema } from "../../api/client";

const two = (n: number) => String(n).padStart(2, "0");

/** "20:47" of an instant, by the clock of this device's zone. */
export const clockAt = (at: string | number) => {
  const d = new Date(at);
  return `${two(d.getHours())}:${two(d.getMinutes())}`;
};

export const dayAt = (at: string | number) =>
  new Date(at).toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "short" });

/** "24 drops Wet Slate, 12 Tap Water"; what comes straight from its bottle needs no counting. */
export function mixWords(mix: Schema["BenchMix"]): string {
  if (mix.parts.length === 1) return "straight from the bottle";
  return mix.parts
    .map((p, i) => {
      const unit = p.brushLoads ? "brush-loads " : i === 0 || mix.parts[i - 1]!.brushLoads ? "drops " : "";
      return `${p.drops} ${unit}${p.name}`;
    })
    .join(", ");
}
