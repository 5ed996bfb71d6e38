import type { Schema } from "../../../api/client";

type RangeAt = Schema["RangeAt"];

/** Where hands end, in words: "a thin hand ends #8a7a60, a heavy one #6b5a45, ΔE 9.1 apart". */
export const handWords = (r: RangeAt) =>
  r.difference < 1
    ? "a thin and a heavy hand end alike"
    : `a thin hand ends ${r.thin}, a heavy one ${r.heavy}, ΔE ${r.difference.toFixed(1)} apart`;

/** The layer that causes most of it: "layer 3, all-over wash, decides: 7 of 9". */
export function decidesWords(
  r: RangeAt,
  layers: readonly { id: string; technique: string }[],
): string | null {
  const at = layers.findIndex((l) => l.id === r.decidesId);
  if (at < 0 || r.difference < 1) return null;
  return `layer ${at + 1}, ${layers[at]!.technique}, decides: ${Math.round(r.share)} of ${Math.round(r.difference)}`;
}
