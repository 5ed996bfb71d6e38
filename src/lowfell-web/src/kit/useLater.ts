import { useEffect, useState } from "react";

/** A server that is away for a moment is asked again after so long. */
const AGAIN_MS = 3000;

/**
 * A part of a view that comes in a bundle of its own: null until it is there. Where it cannot be had just now it is asked for again, and the
 * view stands without it meanwhile.
 */
export function useLater<T>(load: () => Promise<T>, wanted: boolean): T | null {
  const [part, setPart] = useState<T | null>(null);
  const there = part !== null;
  useEffect(() => {
    if (!wanted || there) return;
    let timer = 0;
    let left = false;
    const ask = () =>
      void load().then(
        (came) => left || setPart(() => came),
        () => left || (timer = window.setTimeout(ask, AGAIN_MS)),
      );
    ask();
    return () => {
      left = true;
      window.clearTimeout(timer);
    };
  }, [load, wanted, there]);
  return part;
}
