import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useInstruments } from "../../shared/instruments";

const LOOK_MS = 15_000,
  STEP_C = 0.5,
  STEP_HUMIDITY = 0.02;

/** The air and the instruments; where the air has moved enough to matter, what dries is reckoned anew. */
export function useAir(workshopId: string) {
  const queries = useQueryClient();
  const read = useInstruments(workshopId, LOOK_MS);
  const air = read?.air;
  const step = air?.by
    ? `${Math.round(air.temperatureC / STEP_C)} ${Math.round(air.relativeHumidity / STEP_HUMIDITY)}`
    : "";
  useEffect(() => {
    if (step) void queries.invalidateQueries({ queryKey: ["bench", workshopId] });
  }, [step, workshopId, queries]);
  return read;
}
