/** What the address says besides its path. */
export const inAddress = (name: string) => new URLSearchParams(location.search).get(name);

/**
 * Writes what is looked at into the address, so that it can be kept, shared and reloaded. It is not a step for the Back key, and nothing
 * is drawn anew for it.
 */
export function putInAddress(values: Readonly<Record<string, string | null>>) {
  const url = new URL(location.href);
  for (const [name, value] of Object.entries(values))
    if (value === null || value === "") url.searchParams.delete(name);
    else url.searchParams.set(name, value);
  if (url.href !== location.href) history.replaceState(history.state, "", url);
}
