import type { Schema } from "../../api/client";
import { minutes } from "../../shared/words";

export const roleWords: Record<Schema["DeviceRole"], string> = {
  look: "looks on",
  work: "works at the bench",
  measure: "an instrument",
};

/** How long ago, in words. */
export function agoWords(at: string, now = Date.now()) {
  const passed = (now - Date.parse(at)) / 60_000;
  return passed < 1.5 ? "just now" : `${minutes(passed)} ago`;
}

/** Minutes and seconds that are left of a key: 4:05. */
export function leftWords(until: number, now: number) {
  const seconds = Math.max(0, Math.ceil((until - now) / 1000));
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}
