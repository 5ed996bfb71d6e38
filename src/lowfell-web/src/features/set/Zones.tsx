import { useState } from "react";
import { Link } from "react-router";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Later } from "../../kit/Later";
import { Menu } from "../../kit/Menu";
import { plural } from "../../kit/severity";
import { Cell, Figure, Row, Table } from "../../kit/Table";
import { Wide } from "../../kit/Wide";
import { removed, useChange } from "../../shared/useChange";
import { noChange } from "./zone";

const zoneDialog = () => import("./ZoneDialog").then((m) => m.default);

/** The zones of a design with their measures, and what they are treated with. */
export function Zones({ set, design }: { set: Schema["SetSheet"]; design: Schema["DesignSheet"] }) {
  const [open, setOpen] = useState<Schema["ZoneFacts"] | "new" | null>(null);
  const here = design.zones.filter((z) => !z.putAwayAt);
  const away = design.zones.filter((z) => z.putAwayAt);
  return (
    <section aria-labelledby="zones" className="mt-5">
      <div className="flex items-baseline gap-3">
        <h3 id="zones" className="text-sm font-semibold">
          Zones
        </h3>
        <span className="text-xs text-soft">
          surfaces that get layers of their own; figures are for one piece
        </span>
        <Button className="ml-auto" aria-haspopup="dialog" onClick={() => setOpen("new")}>
          Add a zone
        </Button>
      </div>
      <Wide label={`Zones of ${design.name}`}>
        <Table
          caption={`Zones of ${design.name}`}
          heads={[
            { text: "Zone" },
            { text: "area", figures: true },
            { text: "surface" },
            { text: "edges", figures: true },
            { text: "joints", figures: true },
            { text: "treatment" },
            { text: "what to do", hidden: true },
          ]}
        >
          {here.map((z, i) => (
            <Zone
              key={z.id}
              zone={z}
              at={i}
              of={here.length}
              set={set}
              design={design}
              onOpen={() => setOpen(z)}
            />
          ))}
          {away.map((z) => (
            <Away key={z.id} zone={z} set={set} />
          ))}
        </Table>
      </Wide>
      {open && (
        <Later
          load={zoneDialog}
          wanted
          with={{ set, design, zone: open === "new" ? null : open, onClose: () => setOpen(null) }}
        />
      )}
    </section>
  );
}

function Zone(props: {
  zone: Schema["ZoneFacts"];
  at: number;
  of: number;
  set: Schema["SetSheet"];
  design: Schema["DesignSheet"];
  onOpen: () => void;
}) {
  const { zone, at, of, set, design, onOpen } = props;
  const [change, busy] = useChange(set.workshopId);
  const params = { path: { id: zone.id } };
  const store = (body: Partial<Schema["ZoneChange"]>, words: string | null = null) =>
    void change(words, (headers) =>
      api.PUT("/api/zones/{zoneId}", {
        headers,
        params: { path: { zoneId: zone.id } },
        body: { ...noChange, ...body, version: zone.version },
      }),
    );
  const others = set.designs.filter((d) => d.id !== design.id && !d.putAwayAt);
  return (
    <Row
      head={
        <button
          type="button"
          className="min-h-6 text-left font-semibold underline decoration-dotted"
          onClick={onOpen}
          aria-haspopup="dialog"
        >
          {zone.name}
        </button>
      }
    >
      <Figure>{zone.areaCm2} cm²</Figure>
      <Cell>
        {zone.surface === "plain"
          ? zone.relief === "smooth"
            ? "smooth"
            : `${zone.relief} relief`
          : zone.surface}
        {zone.beforeAssembly && <span className="block text-soft">before assembly</span>}
      </Cell>
      <Figure>{zone.edgeMm} mm</Figure>
      <Figure>{zone.jointMm} mm</Figure>
      <Cell>
        <Link className="inline-flex min-h-6 items-center underline" to={`/plan/${set.id}/${zone.id}`}>
          {zone.treatment}
        </Link>
        {zone.sharedBy > 1 && (
          <span className="block text-soft">shared by {plural(zone.sharedBy, "zone")}</span>
        )}
      </Cell>
      <Cell className="text-right whitespace-nowrap">
        <Button
          disabled={busy || at === 0}
          aria-label={`${zone.name} before`}
          onClick={() => store({ position: at - 1 })}
        >
          ↑
        </Button>{" "}
        <Button
          disabled={busy || at === of - 1}
          aria-label={`${zone.name} after`}
          onClick={() => store({ position: at + 1 })}
        >
          ↓
        </Button>{" "}
        <Menu
          label={`More of ${zone.name}`}
          says="More"
          end
          groups={[
            {
              entries: [
                { text: "Change it…", run: onOpen },
                {
                  text: "Copy it here",
                  run: () =>
                    void change(`${zone.name} is there a second time, with the same treatment.`, (headers) =>
                      api.POST("/api/zones/{zoneId}/copies", {
                        headers,
                        params: { path: { zoneId: zone.id } },
                        body: { name: null, setId: null, designId: null, withWork: null },
                      }),
                    ),
                },
                {
                  text: "Put it away",
                  run: () =>
                    void change(removed, (headers) =>
                      api.POST("/api/zones/{id}/put-away", { headers, params }),
                    ),
                },
                {
                  text: "Remove it",
                  run: () =>
                    void change(removed, (headers) => api.DELETE("/api/zones/{id}", { headers, params })),
                },
              ],
            },
            ...(others.length > 0
              ? [
                  {
                    name: "Move it to",
                    entries: others.map((d) => ({
                      text: d.name,
                      run: () => store({ designId: d.id }, `${zone.name} is on ${d.name} now.`),
                    })),
                  },
                ]
              : []),
          ]}
        />
      </Cell>
    </Row>
  );
}

function Away({ zone, set }: { zone: Schema["ZoneFacts"]; set: Schema["SetSheet"] }) {
  const [change, busy] = useChange(set.workshopId);
  return (
    <Row head={<span className="text-soft">{zone.name}</span>}>
      <Figure className="text-soft">{zone.areaCm2} cm²</Figure>
      <Cell colSpan={4} className="text-soft">
        put away{zone.worked && ": work was done on it"}
      </Cell>
      <Cell className="text-right">
        <Button
          disabled={busy}
          aria-label={`Bring ${zone.name} back`}
          onClick={() =>
            void change(`${zone.name} is back.`, (headers) =>
              api.POST("/api/zones/{id}/bring-back", { headers, params: { path: { id: zone.id } } }),
            )
          }
        >
          Bring back
        </Button>
      </Cell>
    </Row>
  );
}
