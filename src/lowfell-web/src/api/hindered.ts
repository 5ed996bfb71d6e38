import { Refused } from "./client";
import { isOpen } from "./writes";

type Query = { data: unknown; error: Error | null };

/**
 * Why something cannot be shown. What was read before stands there as long as the server is only away: nobody loses the view he works
 * in because it could not be looked at once more.
 */
export const hindered = (...queries: readonly Query[]): Error | null =>
  queries.find((q) => q.error && !(q.data !== undefined && isAway(q.error)))?.error ?? null;

const isAway = (error: Error) => error instanceof Refused && isOpen(error.refusal);
