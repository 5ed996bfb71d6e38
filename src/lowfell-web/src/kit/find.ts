/** Text as it is compared: without case, accents and double blanks. */
export const plain = (text: string) =>
  text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase().replace(/\s+/g, " ").trim();

/** How well a text fits what was typed: lower is better, null not at all. Every word typed must be found in it. */
export function fit(text: string, typed: string): number | null {
  const [all, asked] = [plain(text), plain(typed)];
  if (asked === "") return 0;
  if (all === asked) return 0;
  if (all.startsWith(asked)) return 1;
  let worst = 1;
  for (const word of asked.split(" ")) {
    const at = all.indexOf(word);
    if (at < 0) return null;
    const begins = new RegExp(`(^|[^\\p{L}\\p{N}])${word.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}`, "u").test(
      all,
    );
    worst = Math.max(worst, begins ? 2 : 3);
  }
  return worst;
}

/** What fits, the best first; things that fit alike stay in their order. */
export function find<T>(things: readonly T[], text: (thing: T) => string, typed: string): T[] {
  if (plain(typed) === "") return [...things];
  return things
    .map((thing, i) => ({ thing, i, rank: fit(text(thing), typed) }))
    .filter((x): x is { thing: T; i: number; rank: number } => x.rank !== null)
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .map((x) => x.thing);
}
