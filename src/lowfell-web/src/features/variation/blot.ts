const POINTS = 9;

/** The outline of a mark as paint leaves it: round on the whole, and never twice the same; mm. */
export function blot(x: number, y: number, sizeMm: number) {
  const r = sizeMm / 2;
  const points = Array.from({ length: POINTS }, (_, i) => {
    const turn = (i / POINTS) * 2 * Math.PI;
    const wobble = 1 + 0.16 * Math.sin(x * 1.7 + y * 2.3 + i * 2.4);
    return [x + Math.cos(turn) * r * wobble, y + Math.sin(turn) * r * wobble] as const;
  });
  const at = (i: number) => points[(i + POINTS) % POINTS]!;
  const middle = (i: number) => {
    const [a, b] = [at(i), at(i + 1)];
    return `${((a[0] + b[0]) / 2).toFixed(2)} ${((a[1] + b[1]) / 2).toFixed(2)}`;
  };
  return `M${middle(-1)}${points.map((p, i) => `Q${p[0].toFixed(2)} ${p[1].toFixed(2)} ${middle(i)}`).join("")}Z`;
}
