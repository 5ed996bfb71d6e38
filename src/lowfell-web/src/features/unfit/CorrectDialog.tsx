import { useQueries, useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { setQuery, workshopsQuery, zoneQuery } from "../../api/queries";
import { Button } from "../../kit/Button";
import { Combobox } from "../../kit/Combobox";
import { Dialog } from "../../kit/Dialog";
import { box } from "../../kit/Frame";
import { useSettle, type Unfit } from "../../shared/unfit/useUnfit";

const NOTE_MOST = 500;

/** Puts an event right that did not fit: which zone, layer and pieces it was, and what was noted. */
export function CorrectDialog(props: { workshopId: string; entry: Unfit; onClose: () => void }) {
  const { workshopId, entry } = props;
  const id = useId();
  const settle = useSettle(workshopId);
  const { data: workshops } = useQuery(workshopsQuery);
  const sets = workshops?.find((w) => w.id === workshopId)?.sets ?? [];
  const sheets = useQueries({ queries: sets.map((s) => setQuery(s.id)) }).flatMap((q) => q.data ?? []);
  const designs = sheets.flatMap((s) => s.designs.filter((d) => !d.putAwayAt));
  const zones = designs.flatMap((d) =>
    d.zones
      .filter((z) => !z.putAwayAt)
      .map((z) => ({ value: z.id, text: `${z.name} on ${d.name}`, design: d })),
  );
  const [zoneId, setZone] = useState(entry.zoneId ?? "");
  const [layerId, setLayer] = useState(entry.layerId ?? "");
  const [pieces, setPieces] = useState<readonly string[]>(entry.pieces.map((p) => p.id));
  const [note, setNote] = useState(entry.note);
  const design = zones.find((z) => z.value === zoneId)?.design;
  const { data: zone } = useQuery({ ...zoneQuery(zoneId), enabled: !!design });
  const layers = (zone?.layers ?? []).map((l, i) => ({ value: l.id, text: `${i + 1}, ${l.technique}` }));
  const there = design?.pieces.filter((p) => !p.putAwayAt) ?? [];
  const chosen = there.filter((p) => pieces.includes(p.id));
  const only = entry.kind === "noted" || entry.kind === "mishap";
  const ready =
    (only && !zoneId) || (!!design && layers.some((l) => l.value === layerId) && chosen.length > 0);
  const save = async () => {
    const done = await settle.correct(entry.id, {
      zoneId: zoneId || null,
      layerId: layerId || null,
      pieceIds: chosen.length > 0 ? chosen.map((p) => p.id) : null,
      note: note.trim(),
    });
    if (done) props.onClose();
  };
  return (
    <Dialog
      open
      onClose={props.onClose}
      title="Put right what did not fit"
      says={`${entry.words}. ${entry.why}`}
    >
      <form
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (ready) void save();
        }}
      >
        <Combobox
          label="On which zone"
          value={zoneId}
          options={zones}
          onChange={setZone}
          placeholder="Choose a zone"
        />
        <Combobox
          label="Which layer"
          value={layerId}
          options={layers}
          onChange={setLayer}
          disabled={!design}
          placeholder="Choose a layer"
        />
        {design && (
          <div role="group" aria-label="On which pieces" className="flex flex-wrap gap-1.5">
            {there.map((p) => (
              <button
                key={p.id}
                type="button"
                aria-pressed={pieces.includes(p.id)}
                className={`min-h-10 min-w-10 rounded-[3px] border px-2 ${pieces.includes(p.id) ? "border-tide bg-tide-wash" : "border-line text-soft"}`}
                onClick={() =>
                  setPieces((all) => (all.includes(p.id) ? all.filter((x) => x !== p.id) : [...all, p.id]))
                }
              >
                {p.label}
              </button>
            ))}
          </div>
        )}
        <div>
          <label htmlFor={id} className="mb-0.5 block text-xs text-soft">
            Note ({note.trim().length} of {NOTE_MOST} letters)
          </label>
          <textarea
            id={id}
            rows={3}
            className={`${box} ${note.trim().length > NOTE_MOST ? "border-signal" : "border-line"}`}
            value={note}
            onChange={(e) => setNote(e.target.value)}
          />
        </div>
        <div className="flex gap-2">
          <Button type="submit" tone="go" disabled={!ready || settle.busy || note.trim().length > NOTE_MOST}>
            Take it in so
          </Button>
          <Button onClick={props.onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
