import { useState } from "react";
import { Button } from "../kit/Button";
import { useInstruments } from "./instruments";

const LOOK_MS = 500;

/**
 * Where a scale speaks: what lies on it since it was set to nothing, to be put where grams are asked. Nothing where there is no scale.
 */
export function ScaleGrams({ workshopId, onUse }: { workshopId: string; onUse: (grams: number) => void }) {
  const scale = useInstruments(workshopId, LOOK_MS)?.scale;
  const [zero, setZero] = useState(0);
  if (!scale) return null;
  const grams = scale.grams - zero;
  return (
    <div role="group" aria-label="The scale" className="flex flex-wrap items-center gap-2 text-sm">
      <span>
        On {scale.by}: <b>{grams.toFixed(2)} g</b>
        {!scale.atRest && <span className="text-soft">, moving</span>}
      </span>
      <Button disabled={!scale.atRest} onClick={() => setZero(scale.grams)}>
        Nothing is on it yet
      </Button>
      <Button disabled={!scale.atRest || grams <= 0} onClick={() => onUse(Math.round(grams * 100) / 100)}>
        Use it
      </Button>
    </div>
  );
}
