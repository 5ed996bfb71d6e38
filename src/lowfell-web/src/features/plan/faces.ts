import type { Sheet } from "./types";

/** Where most of a zone faces, in words. */
export function faces(zone: Sheet["zone"]) {
  if (zone.up >= 0.6) return "faces up";
  if (zone.down >= 0.6) return "faces down";
  return zone.up > 0.2 ? "faces up and sideways" : "faces sideways";
}
