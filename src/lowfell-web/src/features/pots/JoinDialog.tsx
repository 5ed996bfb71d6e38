import { write } from "../../api/writes";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice } from "../../kit/Field";
import { differs } from "../../shared/words";
import { Makes } from "./JarSays";
import { short, type Pot } from "./pots";
import { Refusal } from "./Refusal";
import { useStep, type StepProps } from "./useStep";

/** All of another pot is poured into this one. */
export function JoinDialog(props: StepProps & { others: Pot[] }) {
  const { setId, pot, others } = props;
  const { send, faultOf, general } = useStep(props.onClose);
  const [otherId, setOtherId] = useState(others[0]?.id ?? "");
  const other = others.find((p) => p.id === otherId);
  const answer = useQuery({
    queryKey: ["pots", setId, "ask", pot.id, pot.version, { otherId, version: other?.version }],
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/pots/{setId}/{id}/ask", {
          params: { path: { setId, id: pot.id } },
          body: { paint: null, thinner: null, thinnerId: null, ml: null, otherId },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    enabled: !!other,
    retry: false,
  });
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`Pour another pot into ${pot.label}`}
      says="What is poured together cannot be poured apart again, and keeps only as long as the older of both."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void send(
            (id) =>
              write((headers) =>
                api.POST("/api/pots/{setId}/{id}/join", {
                  headers,
                  params: { path: { setId, id: pot.id } },
                  body: { id, version: pot.version, otherId, otherVersion: other?.version ?? null },
                }),
              ),
            (p) => `${p.label} holds ${short(p.ml)} ml now, ${p.dilution}.`,
          );
        }}
      >
        <Choice
          label="Pour in"
          value={otherId}
          fault={faultOf("otherId")}
          options={others.map((p) => ({ value: p.id, text: `${p.label}, ${short(p.ml)} ml, ${p.dilution}` }))}
          onChange={setOtherId}
        />
        {answer.data && (
          <div className="mt-3 text-sm" aria-live="polite" data-answer>
            <p>
              <b>{short(answer.data.totalMl)} ml in all</b>{" "}
              <span className="text-xs text-soft">
                against what it is on a card: {differs(answer.data.difference)}.
              </span>
            </p>
            <Makes answer={answer.data} />
          </div>
        )}
        <Refusal says={general} />
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go">
            Pour it in
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
