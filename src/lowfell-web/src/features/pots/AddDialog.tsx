import { write } from "../../api/writes";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import { differs, readRatio } from "../../shared/words";
import { Coats, Fit } from "./JarSays";
import { short, typed } from "./pots";
import { Refusal } from "./Refusal";
import { useStep, type StepProps } from "./useStep";

type Way = "ratio" | "amount" | "free";

/** Thin to a ratio, fill up to an amount, or put anything in: what to add is worked out and shown before it is stored. */
export function AddDialog(props: StepProps & { materials: Schema["MaterialCard"][] }) {
  const { setId, pot, materials } = props;
  const { send, faultOf, general, fault } = useStep(props.onClose);
  const thinners = materials.filter((m) => m.kind === "thinner");
  const [way, setWay] = useState<Way>(pot.ml > 0 ? "ratio" : "free");
  const [ratio, setRatio] = useState("1:1");
  const [thinnerId, setThinnerId] = useState(
    () =>
      pot.contents.find((c) => thinners.some((t) => t.id === c.materialId))?.materialId ??
      thinners[0]?.id ??
      "",
  );
  const [upTo, setUpTo] = useState(() => short(Math.ceil(pot.ml) + 5));
  const [free, setFree] = useState({ materialId: materials[0]?.id ?? "", ml: "" });
  const [had, setHad] = useState(false);
  const read = readRatio(ratio);
  const wanted = read === "neat" ? null : read;
  const ask =
    way === "ratio"
      ? wanted && { paint: wanted.paint, thinner: wanted.thinner, thinnerId, ml: null }
      : way === "amount" && typed(upTo) !== null
        ? { paint: null, thinner: null, thinnerId: null, ml: typed(upTo) }
        : null;
  const answer = useQuery({
    queryKey: ["pots", setId, "ask", pot.id, pot.version, ask],
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/pots/{setId}/{id}/ask", {
          params: { path: { setId, id: pot.id } },
          body: ask!,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    enabled: ask !== null,
    retry: false,
  });
  const add =
    way === "free"
      ? free.materialId && typed(free.ml) !== null
        ? [{ materialId: free.materialId, ml: typed(free.ml), drops: null }]
        : []
      : ask && !answer.error
        ? (answer.data?.add.map((a) => ({ materialId: a.materialId, ml: a.ml, drops: null })) ?? [])
        : [];
  const wrong =
    answer.error instanceof Refused ? (answer.error.refusal.errors[0]?.message ?? answer.error.message) : "";
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`Top up or thin ${pot.label}`}
      says={`${short(pot.ml)} ml, ${pot.dilution}.`}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void send(
            (id) =>
              write((headers) =>
                api.POST("/api/pots/{setId}/{id}/top-up", {
                  headers,
                  params: { path: { setId, id: pot.id } },
                  body: { id, version: pot.version, amounts: add, bottleHadMore: had },
                }),
              ),
            (p) => `${p.label}: ${short(p.ml)} ml, ${p.dilution}.`,
          );
        }}
      >
        <div className="grid grid-cols-1 sm:grid-cols-[150px_1fr_1fr] items-start gap-2">
          <Choice
            label="What to do"
            value={way}
            options={[
              { value: "ratio" as Way, text: "Thin to a ratio" },
              { value: "amount" as Way, text: "Fill up to, ml" },
              { value: "free" as Way, text: "Put something in" },
            ].filter((o) => pot.ml > 0 || o.value === "free")}
            onChange={setWay}
          />
          {way === "ratio" && (
            <>
              <TextField
                label="Paint : thinner"
                value={ratio}
                fault={wanted ? undefined : "Write parts, such as 2:1."}
                onChange={(e) => setRatio(e.target.value)}
              />
              <Choice
                label="With"
                value={thinnerId}
                options={thinners.map((t) => ({ value: t.id, text: t.name }))}
                onChange={setThinnerId}
              />
            </>
          )}
          {way === "amount" && (
            <TextField
              label="In all, ml"
              inputMode="decimal"
              value={upTo}
              onChange={(e) => setUpTo(e.target.value)}
            />
          )}
          {way === "free" && (
            <>
              <Choice
                label="Material"
                value={free.materialId}
                options={materials.map((m) => ({ value: m.id, text: m.name, group: m.maker || "No maker" }))}
                onChange={(materialId) => setFree({ ...free, materialId })}
              />
              <TextField
                label="ml"
                inputMode="decimal"
                value={free.ml}
                fault={faultOf("amounts[0].ml")}
                onChange={(e) => setFree({ ...free, ml: e.target.value })}
              />
            </>
          )}
        </div>
        {way !== "free" && (
          <div className="mt-3 text-sm" aria-live="polite" data-answer>
            {wrong ? (
              <Refusal says={wrong} />
            ) : (
              answer.data &&
              ask && (
                <>
                  <p>
                    <b>{answer.data.says}</b>{" "}
                    {answer.data.add.length > 0 && (
                      <span className="text-xs text-soft">
                        About {answer.data.add.map((a) => `${a.drops} drops`).join(" and ")};{" "}
                        {short(answer.data.totalMl)} ml in all, against what it is on a card:{" "}
                        {differs(answer.data.difference)}.
                      </span>
                    )}
                  </p>
                  <div className="mt-2 max-w-[280px] text-xs">
                    <Coats drawdowns={answer.data.drawdowns} />
                  </div>
                  <div className="text-xs">
                    <Fit remarks={answer.data.remarks} />
                  </div>
                </>
              )
            )}
          </div>
        )}
        <Refusal says={general} />
        {(fault?.refusal.code === "not-enough" || had) && (
          <label className="mt-2 flex min-h-6 items-center gap-2 text-xs">
            <input type="checkbox" checked={had} onChange={(e) => setHad(e.target.checked)} />
            The bottle held more than the books say: correct the books, then fill
          </label>
        )}
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go" disabled={add.length === 0}>
            It is in
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
