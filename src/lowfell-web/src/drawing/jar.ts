// A jar drawn from what is in it: strata in true proportion, the first component at the bottom.

export type Stratum = { y: number; height: number };

/** Strata from the floor up, in the units of the drawing; what is left above stays empty. */
export function strata(mls: readonly number[], fullMl: number, height: number): Stratum[] {
  const full = Math.max(
    fullMl,
    mls.reduce((sum, ml) => sum + ml, 0),
  );
  let below = 0;
  return mls.map((ml) => {
    const tall = full > 0 ? (ml / full) * height : 0;
    below += tall;
    return { y: height - below, height: tall };
  });
}

/** Round steps for the scale on the glass: from four to nine of them. */
export function scaleStep(fullMl: number): number {
  const rough = fullMl / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  return [1, 2, 5, 10].map((n) => n * power).find((step) => fullMl / step <= 9) ?? 10 * power;
}

/** The next round size that a jar of so much would have. */
export function jarSize(ml: number): number {
  return [1, 2, 5, 10, 15, 20, 30, 60, 100, 200, 500, 1000].find((size) => ml <= size) ?? ml;
}
