/** The first view is drawn and its answers are there before so long: what it does not need is fetched then. */
export const FETCH_AFTER_MS = 1500;
