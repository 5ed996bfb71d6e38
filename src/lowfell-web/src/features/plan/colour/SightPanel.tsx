import { useState } from "react";
import { Link } from "react-router";
import { api, take, type Schema } from "../../../api/client";
import { Button } from "../../../kit/Button";
import { Slide } from "../../../kit/Slide";
import { Swatch } from "../../../kit/Swatch";
import { capital, paintWords } from "../layerWords";
import { differs, lostBeyond, minutes } from "../../../shared/words";
import type { Layer } from "../stack";
import type { Material, Sheet } from "../types";
import { useAnswer } from "./useAnswer";

const look = {
  seen: { sign: "●", word: "Seen", tone: "text-ink" },
  just: { sign: "◐", word: "Just seen", tone: "text-amber" },
  lost: { sign: "○", word: "Lost", tone: "text-signal" },
} as const;

/** Will anyone see it? Every mark of the zone, and its limits, as they stand from the table. */
export function SightPanel(props: {
  sheet: Sheet;
  setId: string;
  tableMetres: number;
  layers: Layer[];
  byId: Map<string, Material>;
  onSelect: (id: string) => void;
  onLeaveOut: (id: string) => void;
}) {
  const { sheet, layers } = props;
  const [metres, setMetres] = useState(props.tableMetres);
  const { answer, fault } = useAnswer(
    () =>
      take(
        api.POST("/api/plan/zones/{zoneId}/sight", {
          params: { path: { zoneId: sheet.zone.id } },
          body: { layers, metres },
        }),
      ),
    JSON.stringify([layers, metres, sheet.zone.id]),
  );
  const saved = answer?.details
    .filter((d) => d.verdict === "lost")
    .reduce((sum, d) => sum + d.minutesSaved, 0);
  return (
    <section aria-labelledby="sight">
      <h2 id="sight" className="mb-1 text-xs text-soft">
        What is seen from the table
      </h2>
      <Slide
        label="From"
        says={`${metres.toFixed(1)} m${metres === props.tableMetres ? ", the set’s table" : ""}`}
        valueText={`${metres.toFixed(1)} metres`}
        value={metres}
        min={0.3}
        max={3}
        step={0.1}
        onChange={(m) => setMetres(Math.round(m * 10) / 10)}
      />
      {fault && (
        <p role="alert" className="text-xs">
          ■ {fault}
        </p>
      )}
      {answer && (
        <>
          <p role="status" className="my-1 text-xs" data-details={answer.details.length}>
            {answer.details.length === 0
              ? "No layer here makes marks of its own."
              : saved
                ? `Leaving out what is lost from here saves about ${minutes(saved)} over the set (estimate).`
                : "Nothing here is lost from this far."}
          </p>
          <ul aria-label="Marks">
            {answer.details.map((d) => (
              <Mark key={d.layerId} detail={d} {...props} />
            ))}
          </ul>
          {answer.neighbours.length > 0 && (
            <>
              <h3 className="mt-3 mb-1 text-xs text-soft">Against what it touches</h3>
              <ul aria-label="Neighbours">
                {answer.neighbours.map((n) => (
                  <li
                    key={n.zoneId}
                    className="flex items-center gap-2 border-t border-line py-1 text-xs"
                    data-neighbour={n.verdict}
                  >
                    <span className="grid w-12 shrink-0 grid-cols-2">
                      <Swatch colour={answer.average} name={sheet.zone.name} className="h-6 w-full" />
                      <Swatch colour={n.colour} name={n.name} className="h-6 w-full" />
                    </span>
                    <span className="min-w-0 flex-1">
                      <Link className="block truncate underline" to={`/plan/${props.setId}/${n.zoneId}`}>
                        {n.name}
                      </Link>
                      <span className={look[n.verdict].tone}>
                        {n.verdict === "seen"
                          ? "told apart"
                          : n.verdict === "just"
                            ? "◐ hard to tell apart"
                            : "○ cannot be told apart"}
                      </span>
                    </span>
                    <b>{differs(n.difference)}</b>
                  </li>
                ))}
              </ul>
            </>
          )}
        </>
      )}
    </section>
  );
}

function Mark({
  detail: d,
  layers,
  byId,
  onSelect,
  onLeaveOut,
}: {
  detail: Schema["DetailDto"];
  layers: Layer[];
  byId: Map<string, Material>;
  onSelect: (id: string) => void;
  onLeaveOut: (id: string) => void;
}) {
  const layer = layers.find((l) => l.id === d.layerId);
  if (!layer) return null;
  const { sign, word, tone } = look[d.verdict];
  return (
    <li className="border-t border-line py-1.5 text-xs" data-verdict={d.verdict}>
      <button
        type="button"
        className="flex min-h-6 w-full items-baseline gap-1.5 text-left"
        onClick={() => onSelect(layer.id)}
      >
        <b className={tone}>
          <span aria-hidden="true">{sign} </span>
          {word}
        </b>
        <span className="min-w-0 flex-1 truncate">
          {layers.indexOf(layer) + 1} · {capital(layer.technique)}, {paintWords(layer, byId)}
        </span>
        <b>{differs(d.difference)}</b>
      </button>
      <p className="text-soft">
        {Math.round(d.millimetres * 10) / 10} mm {d.shape}s on the {d.position};{" "}
        {lostBeyond(d.lostBeyondMetres)}
      </p>
      {d.verdict !== "seen" && (
        <Button className="mt-0.5" onClick={() => onLeaveOut(layer.id)}>
          Leave it out, saves about {minutes(d.minutesSaved)}
        </Button>
      )}
    </li>
  );
}
