import { same } from "./same";

/** What differs from what a form began with: only that is sent, so that what others changed meanwhile stays. */
export function changes<T extends object>(was: T, now: T): Partial<T> {
  const changed: Partial<T> = {};
  for (const key of Object.keys(now) as (keyof T)[]) if (!same(was[key], now[key])) changed[key] = now[key];
  return changed;
}
