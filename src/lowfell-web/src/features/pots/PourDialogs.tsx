import { write } from "../../api/writes";
import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import { nextLabel, short, typed, vessels, type Pot } from "./pots";
import { Refusal } from "./Refusal";
import { useStep, type StepProps } from "./useStep";

/** Part of a pot becomes a pot of its own, as old as the first. */
export function SplitDialog(props: StepProps & { taken: string[]; onPot: (id: string) => void }) {
  const { setId, pot } = props;
  const { send, faultOf, general } = useStep(props.onClose);
  const [newPotId] = useState(() => crypto.randomUUID() as string);
  const [amount, setAmount] = useState(() => short(pot.ml / 2));
  const [label, setLabel] = useState(() => nextLabel(pot.label, props.taken));
  const [vessel, setVessel] = useState<Schema["Vessel"]>("wet palette");
  return (
    <Dialog open onClose={props.onClose} title={`Split ${pot.label}`} says={`${short(pot.ml)} ml are in it.`}>
      <form
        className="grid grid-cols-[90px_1fr_120px] items-start gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void send(
            (id) =>
              write((headers) =>
                api.POST("/api/pots/{setId}/{id}/split", {
                  headers,
                  params: { path: { setId, id: pot.id } },
                  body: { id, version: pot.version, newPotId, ml: typed(amount) ?? 0, label, vessel },
                }),
              ),
            () => `${label} holds ${amount} ml of it now.`,
          );
        }}
      >
        <TextField
          label="ml to take"
          inputMode="decimal"
          value={amount}
          fault={faultOf("ml")}
          onChange={(e) => setAmount(e.target.value)}
        />
        <TextField
          label="Label"
          value={label}
          maxLength={80}
          fault={faultOf("label", "name")}
          onChange={(e) => setLabel(e.target.value)}
        />
        <Choice label="Kept in" value={vessel} options={vessels} onChange={setVessel} />
        <div className="col-span-3">
          <Refusal says={general} />
          <div className="mt-2 flex gap-2">
            <Button type="submit" tone="go">
              Split it
            </Button>
            <Button onClick={props.onClose}>Cancel</Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}

/** All of another pot is poured into this one. */
export function JoinDialog(props: StepProps & { others: Pot[] }) {
  const { setId, pot, others } = props;
  const { send, faultOf, general } = useStep(props.onClose);
  const [otherId, setOtherId] = useState(others[0]?.id ?? "");
  const other = others.find((p) => p.id === otherId);
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

/** What is really left: counted anew, or all of it thrown away. */
export function LeftDialog(props: StepProps) {
  const { setId, pot } = props;
  const { send, faultOf, general } = useStep(props.onClose);
  const [left, setLeft] = useState(short(pot.ml));
  const [note, setNote] = useState("");
  const path = { setId, id: pot.id };
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`What is left of ${pot.label}`}
      says={`By the book ${short(pot.ml)} ml.`}
    >
      <form
        className="grid grid-cols-[110px_1fr] items-start gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void send(
            (id) =>
              write((headers) =>
                api.POST("/api/pots/{setId}/{id}/correct", {
                  headers,
                  params: { path },
                  body: { id, version: pot.version, leftMl: typed(left) ?? -1, note },
                }),
              ),
            (p) => `${p.label}: ${short(p.ml)} ml.`,
          );
        }}
      >
        <TextField
          label="Really left, ml"
          inputMode="decimal"
          value={left}
          fault={faultOf("leftMl", "ml")}
          onChange={(e) => setLeft(e.target.value)}
        />
        <TextField
          label="Why (if you like)"
          value={note}
          maxLength={500}
          fault={faultOf("note")}
          onChange={(e) => setNote(e.target.value)}
        />
        <div className="col-span-2">
          <Refusal says={general} />
          <div className="mt-2 flex gap-2">
            <Button type="submit" tone="go">
              Correct it
            </Button>
            <Button
              tone="plain"
              onClick={() =>
                void send(
                  (id) =>
                    write((headers) =>
                      api.POST("/api/pots/{setId}/{id}/throw-away", {
                        headers,
                        params: { path },
                        body: { id, version: pot.version, note },
                      }),
                    ),
                  (p) => `${p.label} is empty. Solvents do not go down the drain.`,
                )
              }
            >
              Throw all of it away
            </Button>
            <Button onClick={props.onClose}>Cancel</Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}
