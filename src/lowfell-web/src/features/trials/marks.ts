/** Marks of a dry brush on a field, always the same for the same field: where they lie, as shares of it, and how they are turned. */
export function marks(seed: number, count: number): { x: number; y: number; size: number; turn: number }[] {
  let state = (seed * 2654435761) >>> 0;
  const next = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
  return Array.from({ length: count }, () => ({
    x: next(),
    y: next(),
    size: 0.5 + next() * 0.9,
    turn: Math.round(next() * 90),
  }));
}
