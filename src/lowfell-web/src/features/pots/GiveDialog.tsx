import { write } from "../../api/writes";
import { useId, useState } from "react";
import { useController, useWatch } from "react-hook-form";
import { api } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { maybe, z } from "../../kit/form/checks";
import { Chosen, Typed } from "../../kit/form/fields";
import { ml } from "../../shared/words";
import { lastsFor, short, type Place, type Reading } from "./pots";
import { Refusal } from "./Refusal";
import { usePotForm } from "./usePotForm";
import type { StepProps } from "./useStep";

const schema = z.object({
  place: z.string(),
  pieces: z.array(z.string()).min(1, "Choose the pieces that have it."),
  used: maybe("ml", { name: "What is used", above: 0 }),
});

const key = (p: Place) => p.zoneId + p.layerId;

/** The pieces that it lasts for, of those that have none of it yet. */
const suggested = (place: Place, potMl: number) =>
  place.all
    .filter((p) => !p.done)
    .slice(0, lastsFor(potMl, place))
    .map((p) => p.id);

const fields: Record<string, string> = { pieceIds: "pieces", ml: "used", zoneId: "place", layerId: "place" };

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
  const last = pot.pieces.at(-1);
  const says = useId();
  const [first] = useState(
    () =>
      (places.find((p) => last && key(p) === last.zoneId + last.layerId && p.pieces > 0) ??
        places.find((p) => p.pieces > 0) ??
        places[0])!,
  );
  const placeOf = (k: string) => places.find((p) => key(p) === k) ?? first;
  const { control, form, submit, busy, refused } = usePotForm({
    schema,
    begin: { place: key(first), pieces: suggested(first, pot.ml), used: "" },
    fieldOf: (field) => fields[field] ?? field,
    call: ({ place, pieces, used }, id) =>
      write((headers) =>
        api.POST("/api/pots/{setId}/{id}/give", {
          headers,
          params: { path: { setId, id: pot.id } },
          body: {
            id,
            version: pot.version,
            zoneId: placeOf(place).zoneId,
            layerId: placeOf(place).layerId,
            pieceIds: pieces,
            ml: used,
          },
        }),
      ),
    says: (p, { pieces }) =>
      `${pieces.length === 1 ? "One piece has" : `${pieces.length} pieces have`} it; ${short(p.ml)} ml are left.`,
    onDone: props.onClose,
  });
  const place = placeOf(useWatch({ control, name: "place" }));
  const { field: pieces, fieldState } = useController({ control, name: "pieces" });
  const todo = place.all.filter((p) => !p.done);
  const lasts = lastsFor(pot.ml, place);
  const planned = place.pieces > 0 ? (place.ml / place.pieces) * pieces.value.length : 0;
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`Give ${pot.label} to pieces`}
      says={`${short(pot.ml)} ml are in it.`}
    >
      <form noValidate onSubmit={(e) => void submit(e)}>
        <Chosen
          control={control}
          name="place"
          label="On"
          options={places.map((p) => ({
            value: key(p),
            text: `${p.zone}, layer ${p.number} (${p.technique})${p.pieces === 0 ? ", done" : ""}`,
          }))}
          onChosen={(k) => form.setValue("pieces", suggested(placeOf(k), pot.ml))}
        />
        <fieldset className="mt-3" aria-describedby={fieldState.error && `${says}-fault`}>
          <legend className="text-xs text-soft">
            Pieces (
            {lasts >= todo.length
              ? "it lasts for all that are left"
              : `by the plan it lasts for ${lasts} of ${todo.length}`}
            )
          </legend>
          <div className="mt-1 flex flex-wrap gap-1.5">
            {place.all.map((p, i) => (
              <label
                key={p.id}
                className={`flex min-h-[28px] items-center gap-1.5 rounded-[3px] border px-2 text-sm ${pieces.value.includes(p.id) ? "border-tide bg-tide-wash" : "border-line"} ${p.done ? "text-soft" : ""}`}
              >
                <input
                  type="checkbox"
                  ref={i === 0 ? pieces.ref : undefined}
                  checked={pieces.value.includes(p.id)}
                  onChange={(e) =>
                    pieces.onChange(
                      e.target.checked ? [...pieces.value, p.id] : pieces.value.filter((id) => id !== p.id),
                    )
                  }
                />
                {p.label}
                {p.done && <span className="text-xs">has it</span>}
              </label>
            ))}
          </div>
          {fieldState.error && (
            <p id={`${says}-fault`} className="mt-1 text-xs font-medium text-signal">
              ▲ {fieldState.error.message}
            </p>
          )}
        </fieldset>
        <div className="mt-3 w-[260px]">
          <Typed
            control={control}
            name="used"
            label="Used"
            inputMode="decimal"
            placeholder={planned > 0 ? `as planned, about ${ml(Math.min(planned, pot.ml))}` : ""}
          />
        </div>
        {refused && <Refusal says={refused.message} />}
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go" disabled={busy}>
            They have it
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
