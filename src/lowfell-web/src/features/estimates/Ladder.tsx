import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { Swatch } from "../../kit/Swatch";
import { Figure, Row, Table } from "../../kit/Table";
import { Wide } from "../../kit/Wide";
import { differs, minutes } from "../../shared/words";
import { perTenMinutes, purposes } from "./worth";

/** A zone layer by layer: what each costs and shows, and where the zone would stand if it stopped there. */
export function Ladder(props: {
  design: Schema["DesignCost"];
  zone: Schema["ZoneCost"];
  reading: Schema["EstimatesReading"];
}) {
  const { design, zone, reading } = props;
  const most = Math.max(1, ...zone.layers.map((l) => l.minutes));
  return (
    <section aria-label="Stop here" className="mt-4">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 className="text-base font-semibold">
          {zone.name}, {design.name}
        </h2>
        <Link className="text-xs underline" to={`/plan/${reading.setId}/${zone.id}`}>
          Open its layers
        </Link>
      </div>
      <p className="text-xs text-soft">
        From the first layer to the last, for all {design.pieces} pieces, as seen from {reading.tableMetres}{" "}
        m. Where a painter gets off, what is above is what is missed.
      </p>
      {zone.layers.length === 0 ? (
        <p className="mt-2 text-soft">No layer is planned here yet.</p>
      ) : (
        <Wide label="Where the zone would stand after each layer">
          <Table
            caption={`Where ${zone.name} would stand after each layer`}
            className="mt-2 min-w-[640px] text-xs"
            onCards
            heads={[
              { text: "Layer" },
              { text: "Stops like this" },
              { text: "Minutes", figures: true },
              { text: "It changes" },
              { text: "ΔE in 10 min", figures: true },
              { text: "Stop here" },
            ]}
          >
            {zone.layers.map((l) => {
              const worth = perTenMinutes(l);
              return (
                <Row
                  key={l.id}
                  head={
                    <>
                      <span className="text-soft">{l.number}</span> <b>{l.technique}</b>
                      {l.paint && <span className="block text-soft">{l.paint}</span>}
                    </>
                  }
                >
                  <td className="px-2 py-1">
                    <span className="flex">
                      {(["recess", "field", "raised"] as const).map((at) => (
                        <Swatch key={at} colour={l.seen[at]} name={at} className="size-6" />
                      ))}
                    </span>
                  </td>
                  <Figure className="w-[92px]">
                    {l.piecesToGo === 0 ? (
                      "done"
                    ) : (
                      <>
                        {minutes(Math.round(l.minutes))}
                        <span aria-hidden="true" className="mt-0.5 block h-1 bg-line">
                          <span
                            className="ml-auto block h-full bg-ink"
                            style={{ width: `${(100 * l.minutes) / most}%` }}
                          />
                        </span>
                      </>
                    )}
                  </Figure>
                  <td className="px-2 py-1">{purposes[l.purpose] || differs(l.adds)}</td>
                  <Figure>{l.purpose !== "look" || worth === null ? "" : worth.toFixed(1)}</Figure>
                  <td className="px-2 py-1">
                    {l.toGoMinutes > 0
                      ? `saves ${minutes(Math.round(l.toGoMinutes))}; missed: ${differs(l.left)}`
                      : "all of it"}
                  </td>
                </Row>
              );
            })}
          </Table>
        </Wide>
      )}
    </section>
  );
}
