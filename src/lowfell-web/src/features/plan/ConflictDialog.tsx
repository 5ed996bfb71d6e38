import { useMemo, useState } from "react";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { capital, detailWords, paintWords } from "./layerWords";
import { merge, settle, type Layer } from "./stack";
import type { Material } from "./types";

/** Two windows changed the same stack. Both versions are shown; what is chosen is stored, the other stays one undo away. */
export function ConflictDialog(props: {
  base: Layer[];
  mine: Layer[];
  theirs: Layer[];
  byId: Map<string, Material>;
  onSettle: (chosen: Layer[]) => void;
}) {
  const { base, mine, theirs, byId, onSettle } = props;
  const merged = useMemo(() => merge(base, mine, theirs), [base, mine, theirs]);
  const [choice, setChoice] = useState(new Map<string, "mine" | "theirs">());
  const words = (l: Layer | null) =>
    l
      ? `${capital(l.technique)}: ${paintWords(l, byId)}; ${detailWords(l, byId)}${l.waitMinutes === null ? "" : `; wait ${l.waitMinutes} min`}`
      : "removed";
  return (
    <Dialog
      open
      wide
      onClose={() => {}}
      title="Changed in another window too"
      says="Somebody stored this stack while you were editing it. Nothing was overwritten, and what you typed is still here."
    >
      {merged.clashes.length === 0 ? (
        <p>The two sets of changes do not touch each other; they can be brought together.</p>
      ) : (
        <ul className="max-h-[46vh] overflow-auto">
          {merged.clashes.map((c) => {
            const number = base.findIndex((l) => l.id === c.id) + 1;
            return (
              <li key={c.id} data-clash className="mb-3">
                <fieldset>
                  <legend className="text-sm font-semibold">
                    {number > 0 ? `Layer ${number}` : "A new layer"}
                  </legend>
                  {(["mine", "theirs"] as const).map((side) => (
                    <label key={side} className="mt-1 flex gap-2 border border-line bg-paper p-2">
                      <input
                        type="radio"
                        name={c.id}
                        checked={(choice.get(c.id) ?? "mine") === side}
                        onChange={() => setChoice(new Map(choice).set(c.id, side))}
                      />
                      <span>
                        <b>{side === "mine" ? "Yours" : "Theirs"}</b>
                        <span className="block text-xs">{words(c[side])}</span>
                      </span>
                    </label>
                  ))}
                </fieldset>
              </li>
            );
          })}
        </ul>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        <Button tone="go" onClick={() => onSettle(settle(merged, choice))}>
          {merged.clashes.length ? "Store what is chosen" : "Bring both together"}
        </Button>
        <Button onClick={() => onSettle(theirs)}>Take all of theirs</Button>
        <Button onClick={() => onSettle(mine)}>Keep all of mine</Button>
      </div>
      <p className="mt-3 text-xs text-soft">Whatever you take, your own version is one undo away.</p>
    </Dialog>
  );
}
