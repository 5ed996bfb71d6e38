import { api, Refused, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { TextField } from "../../kit/Field";
import { readFigure, sayFigure } from "../../kit/form/figures";
import { useSay } from "../../kit/Toast";
import { useInPlace } from "../../kit/useInPlace";

const reading = (typed: string) => readFigure(typed, "ml") ?? { value: 0 };

/** How much of every ground and finishing colour stays in the pot for corrections and for pieces to come; takes effect on Enter or when left. */
export function Reserve({ reserve }: { reserve: Schema["ReserveDto"] }) {
  const [send] = useWrite("plan");
  const say = useSay();
  const { field, fault } = useInPlace({
    value: sayFigure(reserve.ml, "ml"),
    same: (typed) => {
      const read = reading(typed);
      return "value" in read && read.value === reserve.ml;
    },
    store: async (typed) => {
      const read = reading(typed);
      if ("fault" in read) return read.fault;
      try {
        const stored = await send((headers) =>
          api.PUT("/api/pots/{setId}/reserve", {
            headers,
            params: { path: { setId: reserve.setId } },
            body: { ml: read.value, version: reserve.version },
          }),
        );
        say(
          stored.ml > 0
            ? `${sayFigure(stored.ml, "ml")} of each ground and finishing colour are kept back.`
            : "Nothing is kept back.",
        );
        return null;
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        return error.message;
      }
    },
  });
  return (
    <span className="no-print w-64 shrink-0">
      <TextField
        beside
        label="Keep back of each colour"
        inputMode="decimal"
        fault={fault || undefined}
        {...field}
      />
    </span>
  );
}
