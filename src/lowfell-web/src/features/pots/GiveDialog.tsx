import { write } from "../../api/writes";
import { useState } from "react";
import { api } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import { readFigure } from "../../kit/form/figures";
import { ml } from "../../shared/words";
import { lastsFor, short, type Place, type Reading } from "./pots";
import { Refusal } from "./Refusal";
import { useStep, type StepProps } from "./useStep";

/** Which pieces are painted from the pot, and with how much of it. */
export function GiveDialog(props: StepProps & { reading: Reading }) {
  const { pot, reading } = props;
  const own = reading.mixes.find((m) => m.recipeKey === pot.recipeKey);
  // A pot of the plan goes where the plan wants it; one mixed freely, or a remix, may go anywhere.
  const places = own ? own.places : reading.mixes.flatMap((m) => m.places);
  if (places.length === 0)
    return (
      <Dialog open onClose={props.onClose} title={`Give ${pot.label} to pieces`}>
        <p>No layer of this set takes anything from a pot. Plan one first.</p>
        <Button className="mt-4" onClick={props.onClose}>
          Close
        </Button>
      </Dialog>
    );
  return <Giving {...props} places={places} />;
}

function Giving(props: StepProps & { places: Place[] }) {
  const { setId, pot, places } = props;
  const { send, faultOf, general } = useStep(props.onClose);
  const last = pot.pieces.at(-1);
  const key = (p: Place) => p.zoneId + p.layerId;
  const [placeKey, setPlaceKey] = useState(
    () =>
      (places.find((p) => last && key(p) === last.zoneId + last.layerId && p.pieces > 0) ??
        places.find((p) => p.pieces > 0) ??
        places[0])!,
  );
  const place = places.find((p) => key(p) === key(placeKey)) ?? placeKey;
  const todo = place.all.filter((p) => !p.done);
  const lasts = lastsFor(pot.ml, place);
  const [chosen, setChosen] = useState<Set<string>>(() => new Set(todo.slice(0, lasts).map((p) => p.id)));
  const [amount, setAmount] = useState("");
  const used = readFigure(amount, "ml");
  const unread = used && "fault" in used ? used.fault : undefined;
  const planned = place.pieces > 0 ? (place.ml / place.pieces) * chosen.size : 0;
  const choosePlace = (next: Place) => {
    setPlaceKey(next);
    setChosen(
      new Set(
        next.all
          .filter((p) => !p.done)
          .slice(0, lastsFor(pot.ml, next))
          .map((p) => p.id),
      ),
    );
  };
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`Give ${pot.label} to pieces`}
      says={`${short(pot.ml)} ml are in it.`}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void send(
            (id) =>
              write((headers) =>
                api.POST("/api/pots/{setId}/{id}/give", {
                  headers,
                  params: { path: { setId, id: pot.id } },
                  body: {
                    id,
                    version: pot.version,
                    zoneId: place.zoneId,
                    layerId: place.layerId,
                    pieceIds: [...chosen],
                    ml: used && "value" in used ? used.value : null,
                  },
                }),
              ),
            (p) =>
              `${chosen.size === 1 ? "One piece has" : `${chosen.size} pieces have`} it; ${short(p.ml)} ml are left.`,
          );
        }}
      >
        <Choice
          label="On"
          value={key(place)}
          options={places.map((p) => ({
            value: key(p),
            text: `${p.zone}, layer ${p.number} (${p.technique})${p.pieces === 0 ? ", done" : ""}`,
          }))}
          onChange={(k) => choosePlace(places.find((p) => key(p) === k)!)}
        />
        <fieldset className="mt-3">
          <legend className="text-xs text-soft">
            Pieces (
            {lasts >= todo.length
              ? "it lasts for all that are left"
              : `by the plan it lasts for ${lasts} of ${todo.length}`}
            )
          </legend>
          <div className="mt-1 flex flex-wrap gap-1.5">
            {place.all.map((p) => (
              <label
                key={p.id}
                className={`flex min-h-[28px] items-center gap-1.5 rounded-[3px] border px-2 text-sm ${chosen.has(p.id) ? "border-tide bg-tide-wash" : "border-line"} ${p.done ? "text-soft" : ""}`}
              >
                <input
                  type="checkbox"
                  checked={chosen.has(p.id)}
                  onChange={(e) => {
                    const next = new Set(chosen);
                    if (e.target.checked) next.add(p.id);
                    else next.delete(p.id);
                    setChosen(next);
                  }}
                />
                {p.label}
                {p.done && <span className="text-xs">has it</span>}
              </label>
            ))}
          </div>
          {faultOf("pieceIds") && (
            <p className="mt-1 text-xs font-medium text-signal">▲ {faultOf("pieceIds")}</p>
          )}
        </fieldset>
        <div className="mt-3 w-[260px]">
          <TextField
            label="Used"
            inputMode="decimal"
            placeholder={planned > 0 ? `as planned, about ${ml(Math.min(planned, pot.ml))}` : ""}
            value={amount}
            fault={unread ?? faultOf("ml", "zoneId", "layerId")}
            onChange={(e) => setAmount(e.target.value)}
          />
        </div>
        <Refusal says={general} />
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go" disabled={chosen.size === 0 || unread !== undefined}>
            They have it
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
