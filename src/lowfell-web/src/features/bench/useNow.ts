import { useEffect, useState } from "react";
import { benchClock } from "../../shared/bench/clock";

/** The server's time as this device tells it, second by second. */
export function useNow(): number {
  const [now, setNow] = useState(() => benchClock().serverNow());
  useEffect(() => {
    const timer = window.setInterval(() => setNow(benchClock().serverNow()), 1000);
    return () => window.clearInterval(timer);
  }, []);
  return now;
}
