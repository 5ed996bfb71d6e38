import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { materialsQuery, zoneQuery } from "../../api/queries";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import { NumberField } from "../../kit/NumberField";
import { reliefs } from "../../shared/choices";
import { useChange } from "../../shared/useChange";
import { FactorFields } from "./FactorFields";
import { begun, less, lessTyped, read, spare, type Draft } from "./levels";
import { Proposals } from "./Proposals";
import { TileDrawing } from "./TileDrawing";
import type { Factor } from "./types";

const MOST_FACTORS = 3,
  LEAST_MM = 15,
  MOST_MM = 300,
  USUAL_MM = 40;

/** What a proposed trial asks, by the layers it varies: "How much dry brush Salt White and dust Silt Pigment?" */
const nameOf = (words: string) =>
  `How much ${words
    .split("; ")
    .map((w) => w.split(":")[0]!.replace(/^layer \d+, /, ""))
    .join(" and ")
    .slice(0, 105)}?`;

/** A new trial: what is tried out, what is varied, and on what; laid out and predicted while it is put together. */
export function NewTrial(props: {
  setId: string;
  workshopId: string;
  designs: Schema["PlanOverview"]["designs"];
  onClose: () => void;
  onMade: (id: string) => void;
}) {
  const { setId, workshopId, designs } = props;
  const zones = designs.flatMap((d) => d.zones.map((z) => ({ value: z.id, text: `${z.name}, ${d.name}` })));
  const [id] = useState(() => crypto.randomUUID() as string);
  const [zoneId, setZoneId] = useState(zones[0]?.value ?? "");
  const [name, setName] = useState("");
  const [tile, setTile] = useState<Schema["TileDto"]>({
    widthMm: USUAL_MM,
    heightMm: USUAL_MM,
    round: false,
    relief: null,
  });
  const [drafts, setDrafts] = useState<readonly Draft[]>([]);
  // Levels that were proposed are taken as they came, until something else is varied.
  const [proposed, setProposed] = useState<{ words: string; factors: Factor[] } | null>(null);
  const [change, busy] = useChange(workshopId);
  const zone = useQuery({ ...zoneQuery(zoneId), enabled: !!zoneId });
  const { data: materials = [] } = useQuery(materialsQuery(workshopId));
  const layers = zone.data?.layers ?? [];
  const varied = drafts.map((d) => {
    const layer = layers.find((l) => l.id === d.layerId);
    const main = materials.find((m) => m.id === layer?.paint[0]?.materialId);
    const thinner = materials.find(
      (m) => m.kind === "thinner" && m.thinners.some((f) => main?.thinners.includes(f)),
    );
    return layer ? read(d, layer, thinner?.id) : { fault: "Choose a layer." };
  });
  const factors = proposed?.factors ?? varied.flatMap((v) => ("factor" in v ? [v.factor] : []));
  const body = { id: null, zoneId, name: null, tile, factors };
  const look = useQuery({
    queryKey: ["trial", setId, "look", body],
    enabled: factors.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      take(api.POST("/api/trials/{setId}/look", { params: { path: { setId } }, signal, body })),
  });
  const error = factors.length > 0 ? hindered(look) : null;
  const seen = factors.length > 0 ? look.data : undefined;
  const keep = async () => {
    const made = await change<Schema["TrialReading"]>(`The trial ${name.trim()} is laid out.`, (headers) =>
      api.POST("/api/trials/{setId}", {
        params: { path: { setId } },
        headers,
        body: { ...body, id, name: name.trim() },
      }),
    );
    if (made) props.onMade(id);
  };
  const leaveOut = (factor: number, level: number) => {
    if (proposed) {
      const left = less(proposed.factors, factor, level);
      if (left) setProposed({ ...proposed, factors: left });
      return;
    }
    const layerId = factors[factor]?.layerId;
    setDrafts(drafts.flatMap((d) => (d.layerId === layerId ? (lessTyped(d, level) ?? []) : d)));
  };
  const another = () => {
    const next = begun(layers, drafts);
    if (!next) return;
    setProposed(null);
    setDrafts([...drafts, next]);
  };
  return (
    <Dialog
      open
      wide
      onClose={props.onClose}
      title="A new trial"
      says="Every level with every other, on one tile; all else is laid as the treatment has it."
    >
      <div className="grid gap-4 text-sm md:grid-cols-[minmax(0,1fr)_260px]">
        <div className="grid content-start gap-3">
          <Choice
            label="Of the treatment of"
            value={zoneId}
            options={zones}
            onChange={(z) => {
              setZoneId(z);
              setDrafts([]);
              setProposed(null);
            }}
          />
          <Proposals
            key={zoneId}
            setId={setId}
            zoneId={zoneId}
            taken={proposed?.words ?? null}
            onTake={(p) => {
              setProposed(p);
              setDrafts([]);
              if (tile.widthMm < p.tile.widthMm || tile.heightMm < p.tile.heightMm)
                setTile({ ...p.tile, round: false, relief: tile.relief ?? null });
              if (!name) setName(nameOf(p.words));
            }}
          />
          {!proposed &&
            drafts.map((d, i) => {
              const v = varied[i]!;
              return (
                <FactorFields
                  key={i}
                  number={i + 1}
                  draft={d}
                  layers={layers}
                  materials={materials}
                  fault={"fault" in v ? v.fault : undefined}
                  onChange={(to) => setDrafts(drafts.map((x, k) => (k === i ? to : x)))}
                  onRemove={() => setDrafts(drafts.filter((_, k) => k !== i))}
                />
              );
            })}
          {(proposed || drafts.length < MOST_FACTORS) && (
            <span>
              <Button disabled={layers.every((l) => l.paint.length === 0)} onClick={another}>
                {drafts.length === 0 || proposed ? "Vary a layer of your own choice" : "Vary one more"}
              </Button>
            </span>
          )}
          <div className="grid grid-cols-[1fr_1fr_1fr_auto] items-end gap-3 max-sm:grid-cols-2">
            <NumberField
              label="Tile, across"
              value={tile.widthMm}
              unit="mm"
              least={LEAST_MM}
              most={MOST_MM}
              onSet={(widthMm) => setTile({ ...tile, widthMm })}
            />
            <NumberField
              label="Tile, down"
              value={tile.heightMm}
              unit="mm"
              least={LEAST_MM}
              most={MOST_MM}
              onSet={(heightMm) => setTile({ ...tile, heightMm })}
            />
            <Choice
              label="Its relief"
              value={tile.relief ?? ""}
              options={[{ value: "", text: "the zone's" }, ...reliefs.map((t) => ({ value: t, text: t }))]}
              onChange={(relief) => setTile({ ...tile, relief: relief || null })}
            />
            <label className="flex min-h-[30px] items-center gap-1.5">
              <input
                type="checkbox"
                checked={tile.round}
                onChange={(e) => setTile({ ...tile, round: e.target.checked })}
              />
              Round
            </label>
          </div>
          <TextField
            label="What it asks"
            value={name}
            maxLength={120}
            placeholder="Which dry brush, under which wash?"
            onChange={(e) => setName(e.target.value)}
          />
        </div>
        <div className="grid content-start gap-2">
          {error && <Alert>{error.message}</Alert>}
          {!seen && !error && <p className="text-soft">Vary a layer, and the tile is laid out here.</p>}
          {seen?.refusal && <p className="text-amber">▲ {seen.refusal}</p>}
          {seen && !seen.refusal && (
            <>
              <TileDrawing trial={seen} />
              <p className="text-xs text-soft">
                {seen.cells.length} fields of {seen.cells[0]!.widthMm.toFixed(0)} ×{" "}
                {seen.cells[0]!.heightMm.toFixed(0)} mm; tape is laid {seen.maskingMoves} times
              </p>
              {proposed &&
                seen.factors.map((f) => (
                  <p key={f.layerId} className="text-xs">
                    <b>{f.words}</b>: {f.levels.join(", ")}
                  </p>
                ))}
              {spare(seen).map(({ alike, level }) => (
                <p key={alike.words} className="border-l-4 border-tide bg-tide-wash px-2 py-1 text-xs">
                  {alike.words}
                  {less(factors, alike.factor, level) && (
                    <Button className="mt-1 block" onClick={() => leaveOut(alike.factor, level)}>
                      Leave out {seen.factors[alike.factor]?.levels[level]}
                    </Button>
                  )}
                </p>
              ))}
            </>
          )}
        </div>
      </div>
      <div className="mt-4 flex gap-2">
        <Button
          tone="go"
          disabled={
            busy || !name.trim() || !seen || !!seen.refusal || (!proposed && varied.some((v) => "fault" in v))
          }
          onClick={() => void keep()}
        >
          Lay it out
        </Button>
        <Button onClick={props.onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}
