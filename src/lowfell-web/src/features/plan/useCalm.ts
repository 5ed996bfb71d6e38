import { useEffect, useRef, useState } from "react";

/** Figures that change more often than this are not read anyway. */
const CALM_MS = 120;

/** A value as it is, or, while it changes many times a second, as it was a moment ago: for what is read and not looked at. */
export function useCalm<T>(value: T): T {
  const [shown, setShown] = useState(value);
  const last = useRef(0);
  useEffect(() => {
    const wait = last.current + CALM_MS - performance.now();
    const show = () => {
      last.current = performance.now();
      setShown(value);
    };
    if (wait <= 0) return show();
    const timer = window.setTimeout(show, wait);
    return () => window.clearTimeout(timer);
  }, [value]);
  return shown;
}
