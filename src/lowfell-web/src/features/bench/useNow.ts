import { useEffect, useState } from "react";

/** The server's clock as this device tells it, second by second. */
export function useNow(offsetMs: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = window.setInterval(() => setNow(Date.now()), 1000);
    return () => window.clearInterval(timer);
  }, []);
  return now + offsetMs;
}
