/** Whether two plain values are written the same. */
export const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
