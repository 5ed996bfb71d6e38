import { useId, useState } from "react";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { box } from "../../kit/Frame";
import { labelsOf } from "../../shared/labels";
import type { Piece, Task, Told, Wet } from "./types";
import { onWet, toldOf, zoneNames } from "./zones";

export type NoteKind = "wiped" | "mishap" | "skipped" | "noted";

const says: Record<NoteKind, { title: string; field: string; go: string; often: string[] }> = {
  wiped: {
    title: "Wiped off, to be tried again",
    field: "Why, if it is worth keeping",
    go: "Wiped, again",
    often: ["a hair in it", "too wet", "wrong colour", "pulled askew"],
  },
  mishap: {
    title: "Mishap",
    field: "What happened",
    go: "Keep it",
    often: ["fingerprint", "tide mark", "run", "dropped", "chipped"],
  },
  skipped: {
    title: "Leave it out",
    field: "Why",
    go: "Skip it",
    often: ["not seen from the table", "good as it is", "no time", "out of paint"],
  },
  noted: { title: "Note", field: "What to remember", go: "Keep it", often: [] },
};

/** Wiped, gone wrong, left out, or only noted: on which pieces, and why. */
export function NoteDialog(props: {
  kind: NoteKind;
  task: Task | null;
  piece: Piece | null;
  wet: readonly Wet[];
  /** Zones that are taken out of what is told of the task at hand. */
  out: ReadonlySet<string>;
  onClose: () => void;
  onTell: (told: Told, words: string) => void;
}) {
  const { kind, task, piece } = props;
  const { title, field, go, often } = says[kind];
  const id = useId();
  const [note, setNote] = useState("");
  const [savedBy, setSavedBy] = useState("");
  const [help, setHelp] = useState("");
  // What was laid goes wrong or is wiped off as well as what is at hand; the newest first.
  const laid =
    kind === "wiped" || kind === "mishap"
      ? [...props.wet]
          .sort((a, b) => b.doneAt.localeCompare(a.doneAt))
          .filter((w, i, all) => all.findIndex((x) => x.eventId === w.eventId) === i)
          .map((w) => props.wet.filter((x) => x.eventId === w.eventId))
          .map((of) => ({
            on: onWet(of),
            what: `${of[0]!.technique}, ${[...new Set(of.map((x) => x.zone))].join(", ")}`,
            pieces: of
              .filter((x, i) => of.findIndex((o) => o.pieceId === x.pieceId) === i)
              .map((x) => ({ id: x.pieceId, label: x.piece })),
          }))
      : [];
  const here = task && {
    on: toldOf(task, props.out, task.pieces),
    what: `${task.technique}, ${zoneNames(task, props.out)}`,
    pieces: task.pieces,
  };
  const things = [
    ...(kind === "wiped" ? laid : []),
    ...(here ? [here] : []),
    ...(kind === "wiped" ? [] : laid),
  ];
  const [thing, setThing] = useState(0);
  const at = things[thing] ?? null;
  const [off, setOff] = useState<readonly string[]>(() =>
    at === here && piece && kind !== "skipped"
      ? at!.pieces.filter((p) => p.id !== piece.id).map((p) => p.id)
      : [],
  );
  const pieces = at?.pieces.filter((p) => !off.includes(p.id)) ?? [];
  const needs = kind !== "wiped" && note.trim() === "";
  const tell = () =>
    props.onTell(
      {
        kind,
        note: note.trim(),
        ...(kind === "mishap" && savedBy.trim() ? { savedBy: savedBy.trim() } : {}),
        ...(at && pieces.length > 0
          ? {
              ...at.on,
              pieceIds: pieces.map((p) => p.id),
            }
          : {}),
      },
      `${title}: ${at ? labelsOf(pieces.map((p) => p.label)) : "noted"}.`,
    );
  return (
    <Dialog open onClose={props.onClose} title={title}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (!needs) tell();
        }}
      >
        {things.length > 1 && (
          <div role="radiogroup" aria-label="Of what" className="mb-3 grid gap-1">
            {things.map((t, i) => (
              <label
                key={`${t.on.zoneId} ${t.on.layerId} ${i}`}
                className="flex min-h-10 items-center gap-2 text-base"
              >
                <input
                  type="radio"
                  name="what"
                  checked={i === thing}
                  onChange={() => {
                    setThing(i);
                    setOff([]);
                  }}
                />
                {t.what}, {labelsOf(t.pieces.map((p) => p.label))}
              </label>
            ))}
          </div>
        )}
        {at && at.pieces.length > 1 && (
          <div role="group" aria-label="On which pieces" className="mb-3 flex flex-wrap gap-1.5">
            {at.pieces.map((p) => (
              <button
                key={p.id}
                type="button"
                aria-pressed={!off.includes(p.id)}
                className={`min-h-14 min-w-14 rounded-[3px] border px-2 text-base ${off.includes(p.id) ? "border-line text-soft" : "border-tide bg-tide-wash"}`}
                onClick={() => setOff((o) => (o.includes(p.id) ? o.filter((x) => x !== p.id) : [...o, p.id]))}
              >
                {p.label}
              </button>
            ))}
          </div>
        )}
        {at && pieces.length === 0 && (
          <p role="status" className="mb-3 text-sm">
            Choose the pieces it is about.
          </p>
        )}
        <label htmlFor={id} className="mb-0.5 block text-sm text-soft">
          {field}
        </label>
        <textarea
          id={id}
          autoFocus
          rows={2}
          maxLength={500}
          className={`${box} border-line text-base`}
          value={note}
          onChange={(e) => setNote(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Enter" && !e.shiftKey) {
              e.preventDefault();
              e.currentTarget.form!.requestSubmit();
            }
          }}
        />
        <div className="mt-1 flex flex-wrap gap-1.5">
          {(kind === "mishap" && task ? [] : often).map((o) => (
            <Button key={o} className="min-h-10 text-sm" onClick={() => setNote(o)}>
              {o}
            </Button>
          ))}
          {kind === "mishap" &&
            task?.mishaps.map((m) => (
              <Button
                key={m.what}
                className="min-h-10 text-left text-sm"
                onClick={() => {
                  setNote(m.what);
                  if (!savedBy.trim()) setSavedBy(m.times > 0 ? m.savedBy : "");
                  setHelp(m.savedBy);
                }}
              >
                {m.what}
              </Button>
            ))}
        </div>
        {kind === "mishap" && (
          <>
            {help && <p className="mt-2 text-sm">What saves it: {help}.</p>}
            <label htmlFor={`${id}-saved`} className="mt-3 mb-0.5 block text-sm text-soft">
              What saved it
            </label>
            <textarea
              id={`${id}-saved`}
              rows={2}
              maxLength={500}
              className={`${box} border-line text-base`}
              value={savedBy}
              onChange={(e) => setSavedBy(e.target.value)}
            />
          </>
        )}
        <div className="mt-4 flex gap-2">
          <Button
            type="submit"
            tone="go"
            className="min-h-14 px-4 text-base"
            disabled={needs || (at !== null && pieces.length === 0)}
          >
            {go}
          </Button>
          <Button className="min-h-14 px-4 text-base" onClick={props.onClose}>
            Leave it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
