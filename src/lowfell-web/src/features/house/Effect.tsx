import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { moved, severities } from "../../kit/severity";

/** What other answers would do to one set. */
export function Effect({ effect }: { effect: Schema["HouseEffect"] }) {
  return (
    <section aria-label={effect.set} className="mb-3 text-xs">
      <p data-effect>
        <b>{effect.set}:</b> {moved(effect.gone.length, effect.come.length)}.
      </p>
      {(
        [
          ["Go", effect.gone],
          ["Come", effect.come],
        ] as const
      ).map(
        ([word, list]) =>
          list.length > 0 && (
            <div key={word} className="mt-1">
              <h3 className="text-soft">{word}</h3>
              <ul>
                {list.map((m, i) => (
                  <li key={i} className="border-t border-line py-0.5">
                    <span className={severities[m.severity].tint} aria-hidden="true">
                      {severities[m.severity].sign}{" "}
                    </span>
                    <span className="sr-only">{severities[m.severity].word}: </span>
                    {m.title},{" "}
                    <Link className="underline" to={`/plan/${effect.setId}/${m.zoneId}`}>
                      {m.design}, {m.zone}
                    </Link>
                  </li>
                ))}
              </ul>
            </div>
          ),
      )}
    </section>
  );
}
