import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Inline } from "../../kit/Inline";
import { Row, Cell, Table } from "../../kit/Table";
import { Wide } from "../../kit/Wide";
import { useChange } from "../../shared/useChange";
import { Strata } from "./Strata";
import { versionsQuery } from "./queries";
import { tied, type Side } from "./versions";

type Version = Schema["VersionEntry"];

const when = (at: string) =>
  new Date(at).toLocaleString(undefined, {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });

/** How a treatment became what it is: every version with what changed, two of them side by side, any of them brought back. */
export function Versions({ card, workshopId }: { card: Schema["TreatmentCard"]; workshopId: string }) {
  const versions = useQuery(versionsQuery(card.id));
  const [picked, setPicked] = useState<number | null>(null);
  const [change, busy] = useChange(workshopId);
  const list = versions.data ?? [];
  const current = list.find((v) => v.current) ?? list[0];
  const other = list.find((v) => v.number === picked);
  return (
    <section aria-labelledby="versions" className="mt-5">
      <h3 id="versions" className="text-sm font-semibold">
        Versions
      </h3>
      <p className="text-xs text-soft">
        Edits within a minute are one version. Work that was done keeps to the version it was done by.
      </p>
      <ol className="mt-1 max-w-4xl" aria-label="Versions, newest first">
        {list.map((v) => (
          <li
            key={v.number}
            data-version={v.number}
            className="flex flex-wrap items-center gap-3 border-t border-line py-1.5"
          >
            <Strata of={v.strata} className="h-9 w-12" />
            <span className="min-w-0 flex-1 basis-52 text-sm">
              <span className="block">{v.words}</span>
              <span className="text-xs text-soft">
                {when(v.at)} · {v.actor}
                {v.current && " · as it is now"}
              </span>
            </span>
            <span className="w-44">
              <Inline
                label={`A name for the version of ${when(v.at)}`}
                value={v.name ?? ""}
                most={120}
                empty
                placeholder="worth a name?"
                onStore={(name) =>
                  change(null, (headers) =>
                    api.PUT("/api/treatments/{treatmentId}/versions/{number}/name", {
                      headers,
                      params: { path: { treatmentId: card.id, number: v.number } },
                      body: { name },
                    }),
                  )
                }
              />
            </span>
            {!v.current && (
              <>
                <Button
                  aria-pressed={picked === v.number}
                  onClick={() => setPicked(picked === v.number ? null : v.number)}
                >
                  {picked === v.number ? "Put aside" : "Beside now"}
                </Button>
                <Button
                  disabled={busy}
                  onClick={() =>
                    void change(`${card.name} is as it was on ${when(v.at)}.`, (headers) =>
                      api.POST("/api/treatments/{treatmentId}/versions/{number}/bring-back", {
                        headers,
                        params: { path: { treatmentId: card.id, number: v.number } },
                        body: { version: card.version },
                      }),
                    )
                  }
                >
                  Bring back
                </Button>
              </>
            )}
          </li>
        ))}
      </ol>
      {other && current && <Beside then={other} now={current} />}
    </section>
  );
}

/** Two versions side by side, the newest layer on top, the same layer on one line. */
function Beside({ then, now }: { then: Version; now: Version }) {
  const ties = tied(then, now).reverse();
  return (
    <div className="mt-4 max-w-4xl">
      <Wide label="Two versions side by side">
        <Table
          caption={`As it was on ${when(then.at)}, and as it is now`}
          captionShown
          heads={[
            { text: `${when(then.at)}` },
            { text: "colour then", hidden: true },
            { text: "colour now", hidden: true },
            { text: "now" },
          ]}
        >
          {ties.map((t) => (
            <Row
              key={t.id}
              head={<Words side={t.left} />}
              headClass={t.changed ? "font-semibold" : ""}
              className={t.changed ? "font-semibold" : ""}
            >
              <Cell className="w-12">
                <Colour side={t.left} />
              </Cell>
              <Cell className="w-12">
                <Colour side={t.right} />
              </Cell>
              <Cell>
                <Words side={t.right} />
                {t.changed && <span className="sr-only"> (changed)</span>}
              </Cell>
            </Row>
          ))}
        </Table>
      </Wide>
    </div>
  );
}

const Colour = ({ side }: { side: Side | null }) => (
  <svg width="40" height="20" aria-hidden="true">
    <rect
      width="40"
      height="20"
      fill={side?.stratum.colour ?? "none"}
      stroke="var(--line)"
      strokeDasharray={side ? undefined : "2 2"}
    />
  </svg>
);

function Words({ side }: { side: Side | null }) {
  if (!side) return <span className="text-soft">not there</span>;
  const { layer, stratum } = side;
  return (
    <span>
      {side.at + 1} {layer.technique}, {stratum.paint}
      <span className="block font-normal text-soft">
        {[
          layer.dilution
            ? `${layer.dilution.paint}:${layer.dilution.thinner}`
            : layer.paint.length > 0
              ? "neat"
              : "",
          layer.coats > 1 ? `${layer.coats} coats` : "",
          layer.region !== "all" ? layer.region : "",
          layer.strength !== 1 ? `${Math.round(layer.strength * 100)} %` : "",
          layer.optional ? "may be left out" : "",
        ]
          .filter(Boolean)
          .join(" · ")}
      </span>
    </span>
  );
}
