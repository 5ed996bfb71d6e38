import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { Link } from "react-router";
import { touched } from "../../api/moved";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { TextField } from "../../kit/Field";
import { BenchQueue } from "../../shared/bench/queue";
import { labelsOf } from "../../shared/labels";
import { alike, seenWords, type Alike, type Cores, type Piece } from "./cores";

const SHOWN = 40;

/** In what the pieces differ, with what it does to the colour and what to do about it. */
export function Differences(props: {
  cores: Cores;
  piece: Piece | null;
  onAll: () => void;
  onChoose: (id: string) => void;
}) {
  const { cores, piece } = props;
  const queries = useQueryClient();
  const queue = useMemo(
    () =>
      new BenchQueue(cores.workshopId, () => {
        for (const key of touched(["work"])) void queries.invalidateQueries({ queryKey: [key] });
      }),
    [cores.workshopId, queries],
  );
  useEffect(() => {
    const begun = queue.begin();
    return () => void begun.then((end) => end());
  }, [queue]);
  const waiting = useSyncExternalStore(queue.watch, queue.now);
  const [accepts, setAccepts] = useState<Alike | null>(null);
  const all = alike(piece ? [piece] : cores.pieces);
  return (
    <>
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="font-semibold">{piece ? `What differs on ${piece.label}` : "What differs"}</h2>
        {piece && (
          <Button className="min-h-6" onClick={props.onAll}>
            All pieces
          </Button>
        )}
      </div>
      {waiting.why && <p className="text-amber">▲ {waiting.why}</p>}
      {waiting.aside.map((a) => (
        <p key={a.id} role="alert" className="text-signal">
          ▲ It did not fit, and is kept under Log, What did not fit: {a.why}
        </p>
      ))}
      {all.length === 0 && <p className="text-soft">Nothing.</p>}
      <ul>
        {all.slice(0, SHOWN).map(({ pieces, d }) => (
          <li
            key={`${pieces[0]!.id} ${d.layerId} ${d.fault}`}
            data-differs={`${labelsOf(pieces.map((p) => p.label))} ${d.fault}`}
            className="border-b border-line py-1.5"
          >
            {!piece && (
              <button
                type="button"
                className="min-h-6 font-semibold underline"
                onClick={() => props.onChoose(pieces[0]!.id)}
              >
                {labelsOf(pieces.map((p) => p.label))}
              </button>
            )}
            <p>
              {d.accepted ? "✓ " : "▲ "}
              {d.words}
            </p>
            <p className="text-xs text-soft">
              {seenWords(d)}. {d.accepted ? "It may stay." : d.todo}
            </p>
            {!d.accepted && (
              <div className="mt-1 flex flex-wrap items-center gap-2">
                <Button
                  className="min-h-6"
                  aria-label={`Accept: ${labelsOf(pieces.map((p) => p.label))}, ${d.fault}`}
                  onClick={() => setAccepts({ pieces, d })}
                >
                  Accept…
                </Button>
                {d.fault === "missing" && (
                  <Link
                    className="inline-flex min-h-6 items-center text-xs underline"
                    to={`/bench/${cores.workshopId}?zone=${cores.zoneId}&layer=${d.layerId}`}
                  >
                    Bring level at the bench
                  </Link>
                )}
              </div>
            )}
          </li>
        ))}
      </ul>
      {all.length > SHOWN && (
        <p className="text-xs text-soft">And {all.length - SHOWN} more: choose a piece.</p>
      )}
      {accepts && (
        <Accept
          {...accepts}
          onClose={() => setAccepts(null)}
          onAccept={(note) => {
            setAccepts(null);
            void queue.tell({
              kind: "accepted",
              zoneId: cores.zoneId,
              layerId: accepts.d.layerId,
              pieceIds: accepts.pieces.map((p) => p.id),
              note,
            });
          }}
        />
      )}
    </>
  );
}

function Accept(props: Alike & { onClose: () => void; onAccept: (note: string) => void }) {
  const [why, setWhy] = useState("");
  const { pieces, d } = props;
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`Let it be on ${labelsOf(pieces.map((p) => p.label))}`}
      says={d.words}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (why.trim()) props.onAccept(why.trim());
        }}
      >
        <TextField
          label="Why"
          value={why}
          maxLength={500}
          autoFocus
          onChange={(e) => setWhy(e.target.value)}
        />
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go" disabled={!why.trim()}>
            It may stay
          </Button>
          <Button onClick={props.onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
