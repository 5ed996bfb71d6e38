import type { ReactNode } from "react";
import { Hatch } from "../../drawing/Hatch";
import { RegionMark } from "../../drawing/RegionMark";
import { Button } from "../../kit/Button";
import { Swatch } from "../../kit/Swatch";
import { minutes, ml } from "../../shared/words";
import { labelsOf } from "../../shared/labels";
import { clockAt, dayAt, mixWords } from "./says";
import type { Piece, Reading, Task } from "./types";
import { zoneNames, zonesOf } from "./zones";

/** What to do now: big, few words. */
export function Instruction(props: {
  task: Task;
  piece: Piece;
  pot: { id: string; label: string; ml: number } | null;
  next: Task | null;
  prepare: readonly Task[];
  now: number;
  /** Zones that are taken out of what is told. */
  out: ReadonlySet<string>;
  onOut: (zoneId: string) => void;
  onPiece: (id: string) => void;
  onPot: (id: string) => void;
}) {
  const { task, piece, pot, next, now } = props;
  const began = piece.state === "begun" && piece.begunAt ? (now - Date.parse(piece.begunAt)) / 60_000 : null;
  return (
    <section
      aria-label="What to do now"
      className="rounded-[4px] border border-line bg-card px-4 py-3 md:px-6 md:py-4"
    >
      <p className="flex flex-wrap items-center gap-x-2 text-sm text-soft">
        <Hatch technique={task.technique} />
        Layer {task.number} · {zoneNames(task, props.out)} · {task.design}
      </p>
      <h1 className="mt-1 text-xl leading-tight font-semibold md:text-2xl">
        {task.technique[0]!.toUpperCase() + task.technique.slice(1)} {piece.label}
      </h1>
      <p role="status" className="text-base text-soft">
        {began !== null
          ? `begun ${minutes(Math.max(0, began))} ago, about ${minutes(task.minutesEach)} a piece`
          : piece.state === "paused"
            ? "paused"
            : `about ${minutes(task.minutesEach)} a piece, ${minutes(task.minutes)} for ${task.pieces.length === 1 ? "it" : `all ${task.pieces.length}`}`}
      </p>
      <div className="mt-3 flex flex-wrap gap-x-8 gap-y-3">
        {task.mix && (
          <Fact name={pot ? "pot" : "mix"}>
            <span className="flex items-center gap-2">
              <Swatch colour={task.colour} name="" className="size-5 shrink-0" />
              {pot ? pot.label : task.mix.words}
            </span>
            <span className="block text-sm font-normal text-soft">
              {pot
                ? `${ml(pot.ml)} left, takes about ${ml(task.mix.ml)}`
                : `${task.mix.thinned}, about ${ml(task.mix.ml)}: ${mixWords(task.mix)}`}
            </span>
            {task.mix.pots.length > 1 && (
              <span role="group" aria-label="Other pots of it" className="mt-1 flex flex-wrap gap-1.5">
                {task.mix.pots.map((p) => (
                  <button
                    key={p.id}
                    type="button"
                    aria-pressed={p.id === pot?.id}
                    className={`min-h-14 rounded-[3px] border px-3 text-sm ${p.id === pot?.id ? "border-tide bg-tide-wash" : "border-line"}`}
                    onClick={() => props.onPot(p.id)}
                  >
                    {p.label}, {ml(p.ml)}
                  </button>
                ))}
              </span>
            )}
          </Fact>
        )}
        <Fact name="tool">{task.tool}</Fact>
        <div className="flex items-end gap-2">
          <RegionMark region={task.region} colour={task.colour} />
          <Fact name="where">{task.region === "all" ? "all of it" : task.region}</Fact>
        </div>
      </div>
      {piece.coats > 0 && (
        <p className="mt-2 text-base">
          {piece.label} has {piece.coats} of {task.coats} coats.
        </p>
      )}
      <Zones task={task} out={props.out} onOut={props.onOut} />
      {piece.planned && (
        <div className="mt-3 border-l-4 border-tide pl-3">
          <p className="text-lg leading-snug">
            <b>{piece.label}</b> {piece.planned}
          </p>
          {task.pieces.length > 1 && (
            <details className="text-base">
              <summary className="min-h-14 cursor-pointer py-3 text-soft">
                Where it goes on the others
              </summary>
              <ul aria-label="Where it goes on the others">
                {task.pieces
                  .filter((p) => p.id !== piece.id)
                  .map((p) => (
                    <li key={p.id}>
                      <b>{p.label}</b> {p.planned}
                    </li>
                  ))}
              </ul>
            </details>
          )}
        </div>
      )}
      <ul className="mt-3 text-base">
        {task.watch.map((w) => (
          <li key={w}>{w}</li>
        ))}
        {task.window && (
          <li className="text-amber">
            ▲ Then {task.window.what}, {minutes(task.window.opensMinutes)} to{" "}
            {minutes(task.window.closesMinutes)} after it.
          </li>
        )}
        {task.care.map((c) => (
          <li key={c} className="text-amber">
            ▲ {c}
          </li>
        ))}
        {task.care.length > 0 && (
          <li className="text-sm text-soft">
            The label and safety data sheet, local rules and trained advice come first.
          </li>
        )}
      </ul>
      {task.mishaps.some((m) => m.times > 0) && (
        <ul aria-label="Went wrong here before" className="mt-3 border-t border-line pt-2 text-base">
          {task.mishaps
            .filter((m) => m.times > 0)
            .slice(0, 2)
            .map((m) => (
              <li key={m.what}>
                Went wrong before: {m.what}
                {m.savedBy && <>; saved by {m.savedBy}</>}
                {m.minutes !== null && `, ${minutes(m.minutes)}`}.
              </li>
            ))}
        </ul>
      )}
      <div role="group" aria-label="Pieces of the batch" className="mt-3 flex flex-wrap gap-1.5">
        {task.pieces.map((p) => (
          <button
            key={p.id}
            type="button"
            data-piece={p.label}
            aria-pressed={p.id === piece.id}
            className={`min-h-14 min-w-14 rounded-[3px] border px-2 text-base font-semibold ${p.id === piece.id ? "border-tide bg-tide-wash" : "border-line"}`}
            onClick={() => props.onPiece(p.id)}
          >
            {p.label}
            {p.state !== "open" && <span className="block text-xs font-normal text-soft">{p.state}</span>}
          </button>
        ))}
      </div>
      {props.prepare.length > 0 && (
        <ul aria-label="To get ready" className="mt-3 border-t border-line pt-2 text-base">
          {props.prepare.map((t) => (
            <li key={`${t.zoneId} ${t.layerId} ${t.pieces[0]!.id}`}>
              {t.paint}: {t.watch[0]} {t.planned && `At ${clockAt(t.planned)}.`}
            </li>
          ))}
        </ul>
      )}
      {next && (
        <p className="mt-3 border-t border-line pt-2 text-base text-soft">
          Next: {next.technique}, {zoneNames(next)} on {next.design},{" "}
          {labelsOf(next.pieces.map((p) => p.label))}
          {next.mix && `. Open ${next.mix.pots[0]?.label ?? next.mix.words}`}.
        </p>
      )}
    </section>
  );
}

/** Where a layer goes that goes over several zones: a tap takes one out, such as a ring that is painted another day. */
function Zones(props: { task: Task; out: ReadonlySet<string>; onOut: (zoneId: string) => void }) {
  const zones = zonesOf(props.task);
  if (zones.length < 2) return null;
  const left = zones.filter((z) => !props.out.has(z.zoneId));
  return (
    <div role="group" aria-label="Where it goes" className="mt-3 flex flex-wrap gap-1.5">
      {zones.map((z) => {
        const on = left.includes(z);
        return (
          <button
            key={z.zoneId}
            type="button"
            aria-pressed={on}
            // Somewhere it went.
            disabled={on && left.length === 1}
            className={`flex min-h-14 items-center gap-2 rounded-[3px] border px-3 text-left text-base ${on ? "border-tide bg-tide-wash" : "border-line text-soft line-through"}`}
            onClick={() => props.onOut(z.zoneId)}
          >
            <Swatch colour={z.colour} name="" className="size-5 shrink-0" />
            <span>
              {z.zone}
              {z.different && <span className="block text-xs">{z.different}</span>}
            </span>
          </button>
        );
      })}
    </div>
  );
}

/** Nothing is left of the session. */
export function Nothing({ reading, onChoose }: { reading: Reading; onChoose: () => void }) {
  return (
    <section aria-label="What to do now" className="rounded-[4px] border border-line bg-card px-6 py-5">
      <h1 className="text-xl font-semibold">Nothing is waiting</h1>
      <p className="mt-1 text-base text-soft">
        {reading.begins
          ? `The next session is ${dayAt(reading.begins)}, ${clockAt(reading.begins)}.`
          : "Every layer that is planned is laid."}
      </p>
      {reading.others.length > 0 && (
        <Button tone="plain" className="mt-3 min-h-14 px-4 text-base" onClick={onChoose}>
          Work on something else…
        </Button>
      )}
    </section>
  );
}

function Fact({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div>
      <p className="text-xs text-soft">{name}</p>
      <div className="text-base font-semibold">{children}</div>
    </div>
  );
}
