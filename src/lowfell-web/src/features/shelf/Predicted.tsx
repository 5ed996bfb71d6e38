import type { Schema } from "../../api/client";
import { Drawdown } from "../../shared/Drawdown";
import { hiding } from "./MaterialTile";

/** The drawdown that the model predicts, in one to three coats, with how sure it is of the hiding. */
export function Predicted({ card }: { card: Schema["MaterialCard"] }) {
  return (
    <figure className="mt-2">
      <ol className="grid grid-cols-3 gap-1.5" aria-label="Predicted drawdown">
        {card.drawdowns.map((d) => (
          <li key={d.coats} className="text-xs text-soft">
            <Drawdown over={d} clear={card.opticsSource === "clear"} height={76} />
            {d.coats} coat{d.coats > 1 ? "s" : ""}
            <span className="sr-only">
              : over black {d.overBlack}, over white {d.overWhite}
            </span>
          </li>
        ))}
      </ol>
      <figcaption className="mt-1 text-xs text-soft">
        Predicted over black and white: {hiding(card)}.{" "}
        {card.cardDoubt && (
          <>
            Read one step off, it would hide in {card.cardDoubt.coatsLow} to {card.cardDoubt.coatsHigh} coats.{" "}
            {card.cardDoubt.faint && (
              <b>The halves are nearly alike, so its hiding is hardly known: lay a thinner coat.</b>
            )}{" "}
          </>
        )}
        {card.darkerThanSheen && (
          <p className="mt-1 text-soft">
            Darker than a {card.sheen} surface allows. The colour is kept; a {card.sheen} varnish over it will
            pale it.
          </p>
        )}
        {card.opticsSource === "estimated" && (
          <b>Its hiding is an estimate from the colour alone; a contrast card would settle it.</b>
        )}
      </figcaption>
    </figure>
  );
}
