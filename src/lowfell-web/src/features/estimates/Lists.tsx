import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { Figure, Row, Table } from "../../kit/Table";
import { differs, minutes } from "../../shared/words";
import { PaceDialog } from "./PaceDialog";
import { dearest, leastWorth, perTenMinutes, placed, purposes, type Placed } from "./worth";

const SHOWN = 8;

/** Over the whole set: what costs most, what shows least for it, and with which techniques the time goes. */
export function Lists({ reading }: { reading: Schema["EstimatesReading"] }) {
  const layers = placed(reading);
  const [paced, setPaced] = useState<Schema["TechniqueCost"] | null>(null);
  const [all, setAll] = useState(false);
  if (layers.length === 0) return <p className="mt-6 text-soft">Everything is laid.</p>;
  return (
    <div className="mt-6 grid gap-6 xl:grid-cols-2">
      <section aria-label="Shows least for its minutes">
        <h2 className="text-base font-semibold">Shows least for its minutes</h2>
        <p className="text-xs text-soft">
          Leave these out first when time is short. What holds, shapes or finishes is not among them; ask the
          plan before you do, since another layer may need one of these.
        </p>
        <Of
          layers={leastWorth(layers)}
          setId={reading.setId}
          caption="Layers that show least for their minutes"
        />
      </section>
      <section aria-label="Dearest">
        <h2 className="text-base font-semibold">The dearest layers</h2>
        <p className="text-xs text-soft">A quicker tool or a larger batch pays most here.</p>
        <Of layers={dearest(layers)} setId={reading.setId} caption="The dearest layers" />
      </section>
      <section aria-label="By technique">
        <h2 className="text-base font-semibold">By technique</h2>
        <p className="text-xs text-soft">Open one to say what it takes your hands.</p>
        <Table caption="Minutes by technique" className="mt-1 text-xs">
          {reading.techniques.slice(0, all ? undefined : SHOWN).map((t) => (
            <Row
              key={t.technique}
              head={
                <button
                  type="button"
                  className="min-h-6 text-left underline"
                  aria-haspopup="dialog"
                  aria-label={`Minutes of ${t.technique}`}
                  onClick={() => setPaced(t)}
                >
                  {t.technique}
                </button>
              }
            >
              <Figure>{minutes(Math.round(t.minutes))}</Figure>
              <Figure className="w-20 text-soft">± {Math.round(100 * t.error)} %</Figure>
              <Figure className="w-16 text-soft">
                {Math.round((100 * t.minutes) / Math.max(1, reading.minutes))} %
              </Figure>
            </Row>
          ))}
        </Table>
        {reading.techniques.length > SHOWN && (
          <button type="button" className="mt-1 min-h-6 text-xs underline" onClick={() => setAll(!all)}>
            {all ? "Only the dearest" : `All ${reading.techniques.length}`}
          </button>
        )}
      </section>
      {reading.savings.length > 0 && (
        <section aria-label="What would save minutes">
          <h2 className="text-base font-semibold">What would save minutes</h2>
          <p className="text-xs text-soft">Left out, masked, or laid before the main colour.</p>
          <ul className="mt-1 text-xs">
            {reading.savings.slice(0, SHOWN).map((s) => (
              <li key={`${s.zoneId} ${s.layerId} ${s.title}`} className="border-t border-line py-1">
                <Link className="underline" to={`/plan/${reading.setId}/${s.zoneId}?layer=${s.layerId}`}>
                  {s.title}
                </Link>{" "}
                <span className="text-soft">
                  layer {s.number}, {s.zone}
                </span>
                <span className="block">{s.words}</span>
              </li>
            ))}
          </ul>
          {reading.savings.length > SHOWN && (
            <p className="text-xs text-soft">
              and {reading.savings.length - SHOWN} more, in the{" "}
              <Link className="underline" to={`/remarks/${reading.setId}`}>
                remarks
              </Link>
              .
            </p>
          )}
        </section>
      )}
      {paced && <PaceDialog cost={paced} reading={reading} onClose={() => setPaced(null)} />}
    </div>
  );
}

function Of({ layers, setId, caption }: { layers: Placed[]; setId: string; caption: string }) {
  return (
    <Table caption={caption} className="mt-1 text-xs">
      {layers.slice(0, SHOWN).map((l) => (
        <Row
          key={`${l.zoneId} ${l.id}`}
          head={
            <>
              <Link className="underline" to={`/plan/${setId}/${l.zoneId}?layer=${l.id}`}>
                {l.number} {l.technique}
              </Link>
              <span className="block text-soft">{l.zone}</span>
            </>
          }
        >
          <td className="px-1 py-1">{purposes[l.purpose] || differs(l.adds)}</td>
          <Figure className="w-16">{minutes(Math.round(l.minutes))}</Figure>
          <Figure className="w-20 text-soft">
            {l.purpose !== "look" ? "" : `${perTenMinutes(l)!.toFixed(1)} in 10 min`}
          </Figure>
        </Row>
      ))}
    </Table>
  );
}
