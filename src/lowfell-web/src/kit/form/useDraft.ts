import { useCallback, useState } from "react";
import { drafts } from "./drafts";
import { same } from "./same";

/**
 * A value that is being put together and is not stored yet: it is there again after another view, a reload or a closed browser. Without
 * a name nothing is kept.
 */
export function useDraft<T>(name: string | null, begin: T, isOne: (kept: unknown) => kept is T) {
  const [value, setValue] = useState<T>(() => {
    const kept = name === null ? null : drafts.of(name);
    return isOne(kept) ? kept : begin;
  });
  const change = useCallback(
    (next: T) => {
      setValue(next);
      if (name === null) return;
      if (same(next, begin)) drafts.drop(name);
      else drafts.keep(name, next);
    },
    [name, begin],
  );
  return [value, change] as const;
}
