import { QueryClient } from "@tanstack/react-query";
import { touched, type Slice } from "./moved";

/** Everything the page has read. */
export const cache = new QueryClient({ defaultOptions: { queries: { staleTime: 5_000, retry: 1 } } });

/** Has everything read again that shows something of these slices, but for what is known already. */
export const readAgain = (slices: readonly Slice[], known: readonly string[] = []) =>
  Promise.all(
    touched(slices)
      .filter((key) => !known.includes(key))
      .map((key) => cache.invalidateQueries({ queryKey: [key] })),
  );
