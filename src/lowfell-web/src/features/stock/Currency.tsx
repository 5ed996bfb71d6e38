import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused } from "../../api/client";
import { workshopsQuery } from "../../api/queries";
import { useWrite } from "../../api/writes";
import { TextField } from "../../kit/Field";
import { useSay } from "../../kit/Toast";

/** What the workshop's prices are in; takes effect on Enter or when left. */
export function Currency({ workshopId }: { workshopId: string }) {
  const { data } = useQuery(workshopsQuery);
  const workshop = data?.find((w) => w.id === workshopId);
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState("");
  const [send] = useWrite("plan", "shelf");
  const say = useSay();
  if (!workshop) return null;
  const settle = async () => {
    if (typed === null || typed.trim() === workshop.currency) return setTyped(null);
    try {
      const stored = await send((headers) =>
        api.PUT("/api/workshops/{workshopId}", {
          headers,
          params: { path: { workshopId } },
          body: {
            name: null,
            temperatureC: null,
            relativeHumidity: null,
            currency: typed,
            version: workshop.version,
          },
        }),
      );
      setTyped(null);
      setFault("");
      say(stored.currency ? `Prices are in ${stored.currency}.` : "Prices have no currency now.");
    } catch (error) {
      if (error instanceof Refused) setFault(error.message);
    }
  };
  return (
    <span className="w-28">
      <TextField
        beside
        label="Prices in"
        value={typed ?? workshop.currency}
        maxLength={8}
        fault={fault || undefined}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => void settle()}
        onKeyDown={(e) => {
          if (e.key === "Enter") void settle();
          if (e.key === "Escape") setTyped(null);
        }}
      />
    </span>
  );
}
