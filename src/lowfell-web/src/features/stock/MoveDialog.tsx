import { useWrite } from "../../api/writes";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import { ml } from "../plan/stack";

const kinds = ["used", "bought", "thrown away", "lent", "returned", "corrected"] as const;

/** One material's stock: what happened to it, newest first, and something more that happened. */
export function MoveDialog(props: {
  workshopId: string;
  material: Pick<Schema["ShoppingLine"], "materialId" | "name" | "stockMl">;
  onClose: () => void;
  onChanged: () => void;
}) {
  const { workshopId, material } = props;
  const queries = useQueryClient();
  const [kind, setKind] = useState<(typeof kinds)[number]>("used");
  const [amount, setAmount] = useState("");
  const [reason, setReason] = useState("");
  const [fault, setFault] = useState<Refused | null>(null);
  const key = ["stock", "moves", material.materialId];
  const history = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/stock/materials/{materialId}/moves", {
          params: { path: { materialId: material.materialId } },
          signal,
        }),
      ),
  });
  const [send, busy] = useWrite("stock");
  const run = async (call: () => Promise<unknown>) => {
    try {
      await call();
      setFault(null);
      setAmount("");
      setReason("");
      await queries.invalidateQueries({ queryKey: key });
      props.onChanged();
    } catch (error) {
      if (error instanceof Refused) setFault(error);
    }
  };
  const faultOf = (field: string) =>
    fault?.refusal.errors.find((e) => e.field === `moves[0].${field}`)?.message;
  const record = () =>
    run(() =>
      send((headers) =>
        api.POST("/api/stock/{workshopId}/moves", {
          headers,
          params: { path: { workshopId } },
          body: {
            moves: [
              {
                id: crypto.randomUUID(),
                materialId: material.materialId,
                kind,
                ml: Number(amount.replace(",", ".")) || 0,
                reason,
              },
            ],
          },
        }),
      ),
    );
  const undo = (id: string) =>
    run(() =>
      send((headers) =>
        api.POST("/api/stock/moves/{id}/undo", {
          headers,
          params: { path: { id } },
          body: { id: crypto.randomUUID() },
        }),
      ),
    );
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`${material.name}: ${ml(material.stockMl)} in stock`}
      says="Nothing here is ever changed or deleted; a move taken back is a move of its own."
    >
      <form
        className="grid grid-cols-[120px_90px_1fr_auto] items-start gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void record();
        }}
      >
        <Choice label="What happened" value={kind} options={kinds} onChange={setKind} />
        <TextField
          label={kind === "corrected" ? "ml, − takes" : "ml"}
          inputMode="decimal"
          value={amount}
          fault={faultOf("ml")}
          onChange={(e) => setAmount(e.target.value)}
        />
        <TextField
          label={kind === "corrected" ? "Why" : "Why (if you like)"}
          value={reason}
          maxLength={500}
          fault={faultOf("reason")}
          onChange={(e) => setReason(e.target.value)}
        />
        <Button type="submit" tone="go" disabled={busy} className="mt-5 h-[30px]">
          Record
        </Button>
      </form>
      {fault && fault.refusal.errors.length === 0 && (
        <p role="alert" className="mt-2 border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs">
          {fault.message}
        </p>
      )}
      <ul aria-label="Moves, newest first" tabIndex={0} className="mt-3 max-h-[40vh] overflow-y-auto text-xs">
        {history.data?.map((m) => (
          <li key={m.id} data-move={m.kind} className="flex items-center gap-3 border-t border-line py-1">
            <span className="w-20 text-soft">{new Date(m.at).toLocaleDateString("en-GB")}</span>
            <span className="w-24">{m.kind}</span>
            <b className="w-16 text-right whitespace-nowrap">
              {m.ml > 0 ? "+" : "−"}
              {ml(Math.abs(m.ml))}
            </b>
            <span className="min-w-0 flex-1 truncate text-soft" title={m.reason}>
              {m.reason}
              {m.undone && " · taken back"}
            </span>
            {!m.undone && !m.undoesId && m.kind !== "opening" && (
              <button type="button" className="min-h-6 underline" onClick={() => void undo(m.id)}>
                Take back
              </button>
            )}
          </li>
        ))}
      </ul>
      <Button className="mt-3" onClick={props.onClose}>
        Close
      </Button>
    </Dialog>
  );
}
