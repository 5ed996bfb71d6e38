/** "W1–W4, W6": labels that count on are one. */
export function labelsOf(labels: readonly string[]): string {
  const split = labels.map((l) => /^(.*?)(\d+)$/.exec(l));
  const out: string[] = [];
  for (let i = 0; i < labels.length;) {
    let end = i;
    while (
      split[end] &&
      split[end + 1] &&
      split[end]![1] === split[end + 1]![1] &&
      Number(split[end + 1]![2]) === Number(split[end]![2]) + 1
    )
      end++;
    out.push(end > i + 1 ? `${labels[i]}–${labels[end]}` : labels.slice(i, end + 1).join(", "));
    i = end + 1;
  }
  return out.join(", ");
}
