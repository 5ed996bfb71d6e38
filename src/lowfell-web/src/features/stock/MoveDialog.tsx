import { useWrite } from "../../api/writes";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useWatch } from "react-hook-form";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { figure, words, z } from "../../kit/form/checks";
import { Chosen, Typed } from "../../kit/form/fields";
import { useForm } from "../../kit/form/useForm";
import { ml } from "../../shared/words";
import { Alert } from "../../kit/Alert";

const kinds = ["used", "bought", "thrown away", "lent", "returned", "corrected"] as const;

const schema = z
  .object({
    kind: z.enum(kinds),
    ml: figure("ml", { name: "The amount", least: -1_000_000, most: 1_000_000 }),
    reason: words("The reason"),
  })
  .superRefine((m, ctx) => {
    if (m.ml === 0 || (m.ml < 0 && m.kind !== "corrected"))
      ctx.addIssue({ code: "custom", path: ["ml"], message: "Say how much, above 0 ml." });
    if (m.kind === "corrected" && m.reason === "")
      ctx.addIssue({ code: "custom", path: ["reason"], message: "Say why the books were wrong." });
  });

const begin: z.input<typeof schema> = { kind: "used", ml: "", reason: "" };

/** One material's stock: what happened to it, newest first, and something more that happened. */
export function MoveDialog(props: {
  workshopId: string;
  material: Pick<Schema["ShoppingLine"], "materialId" | "name" | "stockMl">;
  onClose: () => void;
  onChanged: () => void;
}) {
  const { workshopId, material } = props;
  const queries = useQueryClient();
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
  const [send] = useWrite("stock");
  const done = async () => {
    setFault(null);
    await queries.invalidateQueries({ queryKey: key });
    props.onChanged();
  };
  const { form, submit, busy, refused, startOver } = useForm({
    schema,
    begin,
    fieldOf: (field) => field.replace("moves[0].", ""),
    send: async (move) => {
      await send((headers) =>
        api.POST("/api/stock/{workshopId}/moves", {
          headers,
          params: { path: { workshopId } },
          body: { moves: [{ id: crypto.randomUUID(), materialId: material.materialId, ...move }] },
        }),
      );
      startOver();
      await done();
    },
  });
  const kind = useWatch({ control: form.control, name: "kind" });
  const undo = async (id: string) => {
    try {
      await send((headers) =>
        api.POST("/api/stock/moves/{id}/undo", {
          headers,
          params: { path: { id } },
          body: { id: crypto.randomUUID() },
        }),
      );
      await done();
    } catch (error) {
      if (error instanceof Refused) setFault(error);
    }
  };
  const says = fault ?? refused;
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`${material.name}: ${ml(material.stockMl)} in stock`}
      says="Nothing here is ever changed or deleted; a move taken back is a move of its own."
    >
      <form
        className="grid grid-cols-[120px_100px_1fr_auto] items-start gap-2 max-sm:grid-cols-2"
        noValidate
        onSubmit={(e) => void submit(e)}
      >
        <Chosen control={form.control} name="kind" label="What happened" options={kinds} />
        <Typed
          control={form.control}
          name="ml"
          label={kind === "corrected" ? "How much, − takes" : "How much"}
          placeholder="ml"
          inputMode="decimal"
        />
        <Typed
          control={form.control}
          name="reason"
          label={kind === "corrected" ? "Why" : "Why (if you like)"}
        />
        <Button type="submit" tone="go" disabled={busy} className="mt-5 h-[30px]">
          Record
        </Button>
      </form>
      {says && says.refusal.errors.length === 0 && <Alert className="mt-2">{says.message}</Alert>}
      <ul aria-label="Moves, newest first" tabIndex={0} className="mt-3 max-h-[40vh] overflow-y-auto text-xs">
        {history.data?.map((m) => (
          <li key={m.id} data-move={m.kind} className="flex items-center gap-3 border-t border-line py-1">
            <span className="w-20 text-soft">{new Date(m.at).toLocaleDateString("en-GB")}</span>
            <span className="w-24">{m.kind}</span>
            <b className="w-16 text-right whitespace-nowrap">
              {m.ml > 0 ? "+" : "−"}
              {ml(Math.abs(m.ml))}
            </b>
            <span className="min-w-0 flex-1 truncate text-soft">
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
