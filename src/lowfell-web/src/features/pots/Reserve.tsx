import { useState } from "react";
import { api, Refused, type Schema } from "../../api/client";
import { useWrite } from "../../api/writes";
import { TextField } from "../../kit/Field";
import { readFigure, sayFigure } from "../../kit/form/figures";
import { useSay } from "../../kit/Toast";

/** How much of every ground and finishing colour stays in the pot for corrections and for pieces to come; takes effect on Enter or when left. */
export function Reserve({ reserve }: { reserve: Schema["ReserveDto"] }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState("");
  const [send] = useWrite("plan");
  const say = useSay();
  const settle = async () => {
    if (typed === null) return;
    const read = readFigure(typed, "ml") ?? { value: 0 };
    if ("fault" in read) return setFault(read.fault);
    if (read.value === reserve.ml) return setTyped(null);
    try {
      const stored = await send((headers) =>
        api.PUT("/api/pots/{setId}/reserve", {
          headers,
          params: { path: { setId: reserve.setId } },
          body: { ml: read.value, version: reserve.version },
        }),
      );
      setTyped(null);
      setFault("");
      say(
        stored.ml > 0
          ? `${sayFigure(stored.ml, "ml")} of each ground and finishing colour are kept back.`
          : "Nothing is kept back.",
      );
    } catch (error) {
      if (error instanceof Refused) setFault(error.message);
    }
  };
  return (
    <span className="no-print w-64 shrink-0">
      <TextField
        beside
        label="Keep back of each colour"
        inputMode="decimal"
        value={typed ?? sayFigure(reserve.ml, "ml")}
        fault={fault || undefined}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => void settle()}
        onKeyDown={(e) => {
          if (e.key === "Enter") void settle();
          if (e.key === "Escape") {
            setTyped(null);
            setFault("");
          }
        }}
      />
    </span>
  );
}
