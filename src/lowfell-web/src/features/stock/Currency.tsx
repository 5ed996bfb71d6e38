import { useQuery } from "@tanstack/react-query";
import { api, Refused, type Schema } from "../../api/client";
import { workshopsQuery } from "../../api/queries";
import { useWrite } from "../../api/writes";
import { TextField } from "../../kit/Field";
import { useSay } from "../../kit/Toast";
import { useInPlace } from "../../kit/useInPlace";

/** What the workshop's prices are in; takes effect on Enter or when left. */
export function Currency({ workshopId }: { workshopId: string }) {
  const { data } = useQuery(workshopsQuery);
  const workshop = data?.find((w) => w.id === workshopId);
  return workshop ? <Of workshop={workshop} /> : null;
}

function Of({ workshop }: { workshop: Schema["WorkshopEntry"] }) {
  const [send] = useWrite("plan", "shelf");
  const say = useSay();
  const { field, fault } = useInPlace({
    value: workshop.currency,
    same: (typed) => typed.trim() === workshop.currency,
    store: async (typed) => {
      try {
        const stored = await send((headers) =>
          api.PUT("/api/workshops/{workshopId}", {
            headers,
            params: { path: { workshopId: workshop.id } },
            body: {
              name: null,
              temperatureC: null,
              relativeHumidity: null,
              currency: typed,
              version: workshop.version,
            },
          }),
        );
        say(stored.currency ? `Prices are in ${stored.currency}.` : "Prices have no currency now.");
        return null;
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        return error.message;
      }
    },
  });
  return (
    <span className="w-28">
      <TextField beside label="Prices in" maxLength={8} fault={fault || undefined} {...field} />
    </span>
  );
}
