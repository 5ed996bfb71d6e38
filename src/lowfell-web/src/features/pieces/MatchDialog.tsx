import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { TextField } from "../../kit/Field";
import { NumberField } from "../../kit/NumberField";
import { severities } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { useChange } from "../../shared/useChange";
import { differs, minutes, ml } from "../../shared/words";

type Need = Schema["MatchNeed"];

/** More pieces like one, as it was really done: what to repeat of what went otherwise than planned, what they take, and what can stand in. */
export function MatchDialog(props: {
  setId: string;
  workshopId: string;
  piece: { id: string; label: string };
  onClose: () => void;
}) {
  const { setId, piece } = props;
  const [count, setCount] = useState(2);
  const [name, setName] = useState<string | null>(null);
  const [dropped, setDropped] = useState<readonly string[]>([]);
  const [swaps, setSwaps] = useState<Readonly<Record<string, string>>>({});
  const [change, busy] = useChange(props.workshopId);
  const navigate = useNavigate();
  const body = {
    pieceIds: [piece.id],
    count,
    dropped: [...dropped],
    swaps: Object.entries(swaps).map(([materialId, byId]) => ({ materialId, byId })),
  };
  const look = useQuery({
    queryKey: ["match", setId, body],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      take(api.POST("/api/pieces/{setId}/match/look", { params: { path: { setId } }, body, signal })),
  });
  const error = hindered(look);
  const match = look.data;
  const make = async () => {
    const made = await change<Schema["Matched"]>(
      (m) => `${m.pieces.join(", ")}: planned as ${piece.label} was done.`,
      (headers) =>
        api.POST("/api/pieces/{setId}/match", {
          params: { path: { setId } },
          headers,
          body: { ...body, name: (name ?? match!.name).trim() },
        }),
    );
    if (made) await navigate(`/set/${setId}/${made.designId}`);
  };
  const toggle = (id: string) => setDropped((d) => (d.includes(id) ? d.filter((x) => x !== id) : [...d, id]));
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`Make more like ${piece.label}`}
      says="They become a design of their own whose treatments are what was really done."
    >
      {error && <Trouble error={error} retry={() => void look.refetch()} />}
      {match && (
        <div className="grid max-h-[70vh] gap-4 overflow-y-auto pr-1 text-sm">
          <div className="grid grid-cols-[7rem_minmax(0,1fr)] gap-3">
            <NumberField
              label="How many"
              unit=""
              value={count}
              least={1}
              most={100}
              onSet={(n) => setCount(Math.round(n))}
            />
            <TextField
              label="Called"
              value={name ?? match.name}
              maxLength={120}
              onChange={(e) => setName(e.target.value)}
            />
          </div>
          <section aria-labelledby="match-deviations">
            <h3 id="match-deviations" className="font-semibold">
              Done otherwise than planned
            </h3>
            {match.deviations.length === 0 && <p className="text-soft">Nothing: it was done as planned.</p>}
            <ul>
              {match.deviations.map((d) => (
                <li key={d.id} className="border-b border-line/60 py-1">
                  <label className="flex items-start gap-2">
                    <input
                      type="checkbox"
                      className="mt-1"
                      checked={!dropped.includes(d.id)}
                      onChange={() => toggle(d.id)}
                    />
                    <span>
                      {d.zone}, {d.words}
                      <span className="block text-xs text-soft">
                        {differs(d.difference)}; {seenWords[d.verdict]}. Ticked, it is done so again.
                      </span>
                    </span>
                  </label>
                </li>
              ))}
            </ul>
          </section>
          <section aria-labelledby="match-needs">
            <h3 id="match-needs" className="font-semibold">
              What they take
            </h3>
            <ul>
              {match.needs.map((n) => (
                <NeedLine
                  key={n.materialId}
                  need={n}
                  by={swaps[n.materialId]}
                  onSwap={(by) =>
                    setSwaps((s) =>
                      Object.fromEntries([
                        ...Object.entries(s).filter(([id]) => id !== n.materialId),
                        ...(by ? [[n.materialId, by]] : []),
                      ] as [string, string][]),
                    )
                  }
                />
              ))}
            </ul>
          </section>
          {match.remarks.length > 0 && (
            <section aria-labelledby="match-remarks">
              <h3 id="match-remarks" className="font-semibold">
                What the stacks say
              </h3>
              <ul>
                {match.remarks.map((r, i) => (
                  <li key={i} className="py-0.5">
                    <span aria-hidden="true">{severities[r.severity].sign} </span>
                    {r.zone}: {r.title}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <p className="text-soft">About {minutes(match.minutes)} hands on for all of them, an estimate.</p>
        </div>
      )}
      <div className="mt-4 flex gap-2">
        <Button
          tone="go"
          disabled={busy || !match || !(name ?? match.name).trim()}
          onClick={() => void make()}
        >
          Make {count} more
        </Button>
        <Button onClick={props.onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}

const seenWords: Record<Schema["MatchDeviation"]["verdict"], string> = {
  seen: "seen from the table",
  just: "just seen from the table",
  lost: "not seen from the table",
};

/** A material, how much of it, and where there is too little of it what could stand in. */
function NeedLine(props: { need: Need; by: string | undefined; onSwap: (by: string | null) => void }) {
  const { need: n, by } = props;
  return (
    <li className="border-b border-line/60 py-1" data-need={n.name}>
      <span className="flex justify-between gap-3">
        <span className={n.short ? "text-amber" : ""}>
          {n.short && "▲ "}
          {n.name}
        </span>
        <span>
          {ml(n.ml)} <span className="text-soft">of {ml(n.stockMl)}</span>
        </span>
      </span>
      {n.short && (
        <div
          role="radiogroup"
          aria-label={`In place of ${n.name}`}
          className="mt-0.5 grid gap-0.5 pl-4 text-xs"
        >
          <label className="flex gap-2">
            <input type="radio" name={n.materialId} checked={!by} onChange={() => props.onSwap(null)} />
            buy more of it
          </label>
          {n.standIns.map((s) => (
            <label key={s.materialId} className="flex gap-2">
              <input
                type="radio"
                name={n.materialId}
                checked={by === s.materialId}
                onChange={() => props.onSwap(s.materialId)}
              />
              {s.name}: {differs(s.difference)}, {seenWords[s.verdict]}
            </label>
          ))}
          {n.standIns.length === 0 && (
            <span className="text-soft">Nothing on the shelf does the same work.</span>
          )}
        </div>
      )}
    </li>
  );
}
