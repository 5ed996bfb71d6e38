import { useQuery } from "@tanstack/react-query";
import { api, take, type Schema } from "../api/client";

export type Instruments = Schema["InstrumentsReading"];

/** The air as it counts now, the scale, and instruments in trouble; asked for again and again while it is looked at. */
export function useInstruments(workshopId: string, everyMs: number) {
  return useQuery({
    queryKey: ["instruments", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/instruments/{workshopId}", { params: { path: { workshopId } }, signal })),
    refetchInterval: everyMs,
    retry: false,
  }).data;
}

/** The air in words: 17.3 °C, 58 %. */
export const airWords = (air: { temperatureC: number; relativeHumidity: number }) =>
  `${air.temperatureC.toFixed(1)} °C, ${Math.round(air.relativeHumidity * 100)} %`;
