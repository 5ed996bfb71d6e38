import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { plural, severities } from "../../kit/severity";

const SHOWN = 4;

/** One thing to do: where it is to be done, why, and the ways to do it everywhere at once. */
export function Group(props: {
  group: Schema["RemarkGroup"];
  setId: string;
  workshopId: string;
  onRemedy?: (remedy: Schema["GroupRemedy"]) => void;
}) {
  const { group, onRemedy } = props;
  const [all, setAll] = useState(false);
  const look = severities[group.severity];
  const items = all ? group.items : group.items.slice(0, SHOWN);
  return (
    <section
      aria-label={group.title}
      data-group={group.rule}
      className={`mb-3 grid md:grid-cols-[minmax(0,1fr)_minmax(220px,300px)] gap-x-5 border border-l-[3px] border-line bg-card px-3 py-2 ${look.edge}`}
    >
      <div className="min-w-0">
        <h2 className="font-semibold">
          <span className={look.tint}>
            <span aria-hidden="true">{look.sign} </span>
            <span className="sr-only">{look.word}: </span>
          </span>
          {group.title} <span className="font-normal text-soft">· {plural(group.items.length, "zone")}</span>
        </h2>
        <ul className="mt-1">
          {items.map((i) => (
            <li key={`${i.zoneId}.${i.layers[0]?.id}`} className="border-t border-hair py-1 text-xs">
              <Link
                to={`/plan/${props.setId}/${i.zoneId}${i.layers[0] ? `?layer=${i.layers[0].id}` : ""}`}
                className="font-semibold underline"
              >
                {i.design}, {i.zone}
              </Link>{" "}
              <span className="text-soft">
                × {i.pieces}
                {i.layers[0] && ` · layer ${i.layers[0].number}`}
                {i.severity !== group.severity && ` · ${severities[i.severity].word.toLowerCase()} here`}
              </span>
              <span className="block">{i.why}</span>
              {i.accepted && <span className="block text-soft">Lived with: {i.accepted.reason}</span>}
            </li>
          ))}
        </ul>
        {group.items.length > SHOWN && (
          <button type="button" className="min-h-6 text-xs underline" onClick={() => setAll((a) => !a)}>
            {all ? "Fewer" : `${group.items.length - SHOWN} more`}
          </button>
        )}
      </div>
      <div className="text-xs">
        {onRemedy && group.remedies.length > 0 && <p className="mb-1 text-soft">Everywhere at once</p>}
        {onRemedy &&
          group.remedies.map((r, n) => (
            <Button
              key={r.id}
              data-remedy={r.id}
              tone={n === 0 ? "plain" : "quiet"}
              className="mb-1.5 block w-full !whitespace-normal text-left"
              aria-haspopup="dialog"
              onClick={() => onRemedy(r)}
            >
              {r.text}{" "}
              <span className="whitespace-nowrap opacity-80">
                · helps {r.helps === group.items.length ? (r.helps === 1 ? "here" : "all") : `at ${r.helps}`}
              </span>
            </Button>
          ))}
        {onRemedy && group.remedies.length === 0 && (
          <p className="text-soft">Nothing in the plan mends this by itself; look at the zones.</p>
        )}
        {group.schools.length > 0 && (
          <Link to={`/house/${props.workshopId}`} className="text-soft underline">
            House rule: {group.schools.join(", ")}
          </Link>
        )}
      </div>
    </section>
  );
}
