import type { Schema } from "../../api/client";

/** Every word typed must be found somewhere in what is written about the material. */
export function matches(m: Schema["MaterialCard"], words: string): boolean {
  const text = `${m.name} ${m.maker} ${m.code} ${m.kind} ${m.carrier} ${m.sheen} ${m.notes}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((w) => text.includes(w));
}
