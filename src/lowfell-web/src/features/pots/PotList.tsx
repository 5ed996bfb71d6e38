import { useEffect, useRef, useState } from "react";
import { Button } from "../../kit/Button";
import { Swatch } from "../../kit/Swatch";
import { ml } from "../../shared/words";
import { life, type Mix, type Pot, type Reading } from "./pots";

/** What the plan wants mixed, and what stands mixed already. */
export function PotList(props: {
  reading: Reading;
  potId?: string;
  mixKey?: string;
  onPot: (id: string) => void;
  onMix: (key: string) => void;
  onFree: () => void;
  onMore: () => void;
}) {
  const { reading } = props;
  const [now] = useState(() => Date.now());
  // Chosen by its key, it may lie out of sight.
  const list = useRef<HTMLElement>(null);
  useEffect(() => {
    list.current?.querySelector("[aria-current=true]")?.scrollIntoView({ block: "nearest" });
  }, [props.potId, props.mixKey]);
  const toMix = reading.mixes.filter((m) => m.needsMixing);
  const neat = reading.mixes.filter((m) => !m.needsMixing);
  const full = reading.pots.filter((p) => p.ml > 0);
  const empty = reading.pots.filter((p) => p.ml === 0);
  const mixes = (list: Mix[]) =>
    list.map((m) => (
      <li key={m.recipeKey}>
        <MixRow mix={m} chosen={m.recipeKey === props.mixKey} onOpen={() => props.onMix(m.recipeKey)} />
      </li>
    ));
  const pots = (list: Pot[]) =>
    list.map((p) => (
      <li key={p.id}>
        <PotRow pot={p} now={now} chosen={p.id === props.potId} onOpen={() => props.onPot(p.id)} />
      </li>
    ));
  return (
    <aside
      ref={list}
      aria-label="Mixes and pots"
      className="min-h-0 overflow-y-auto border-line bg-aside px-3 py-2 max-md:max-h-[36vh] max-md:border-b md:border-r"
    >
      <div className="flex items-baseline justify-between">
        <h2 className="text-sm font-semibold">Pots</h2>
        <Button onClick={props.onFree}>Mix freely</Button>
      </div>
      {full.length === 0 && <p className="mt-1 text-xs text-soft">None stands mixed. Choose a mix below.</p>}
      <ul className="mt-1">{pots(full)}</ul>
      {empty.length > 0 && (
        <details className="mt-1" open={empty.some((p) => p.id === props.potId)}>
          <summary className="min-h-6 cursor-pointer text-xs text-soft">Empty pots ({empty.length})</summary>
          <ul>{pots(empty)}</ul>
        </details>
      )}
      {reading.more && <Button onClick={props.onMore}>Show older pots</Button>}
      <h2 className="mt-3 text-sm font-semibold">What the plan wants mixed</h2>
      <ul className="mt-1">{mixes(toMix)}</ul>
      <details className="mt-1" open={neat.some((m) => m.recipeKey === props.mixKey)}>
        <summary className="min-h-6 cursor-pointer text-xs text-soft">
          Straight from the bottle ({neat.length})
        </summary>
        <ul>{mixes(neat)}</ul>
      </details>
    </aside>
  );
}

const row =
  "flex w-full items-stretch gap-2 border-t border-line py-1.5 pr-1 text-left text-xs hover:bg-card";

function MixRow({ mix, chosen, onOpen }: { mix: Mix; chosen: boolean; onOpen: () => void }) {
  const rest = Math.max(0, mix.ml - mix.inPotsMl);
  return (
    <button
      type="button"
      data-mix={mix.name}
      aria-current={chosen ? "true" : undefined}
      onClick={onOpen}
      className={`${row} ${chosen ? "bg-card shadow-[inset_3px_0_0_var(--tide)]" : ""}`}
    >
      <Swatch colour={mix.colour} name={mix.name} className="ml-1.5 w-4" />
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{mix.name}</span>
        <span className="flex justify-between gap-2 text-soft">
          <span className="min-w-0 truncate">{mix.dilution}</span>
          <span className="whitespace-nowrap">
            {mix.shortMl > 0 && (
              <b className="text-signal">
                <span aria-hidden="true">▲ </span>short{" "}
              </b>
            )}
            {rest === 0 ? (mix.ml === 0 ? "all done" : "in pots") : ml(rest)}
          </span>
        </span>
      </span>
    </button>
  );
}

function PotRow(props: { pot: Pot; now: number; chosen: boolean; onOpen: () => void }) {
  const { pot } = props;
  const left = life(pot, props.now);
  const level = pot.ml > 0 ? (pot.ml / Math.max(pot.madeMl, pot.ml)) * 26 : 0;
  return (
    <button
      type="button"
      data-pot={pot.label}
      aria-current={props.chosen ? "true" : undefined}
      onClick={props.onOpen}
      className={`${row} ${props.chosen ? "bg-card shadow-[inset_3px_0_0_var(--tide)]" : ""}`}
    >
      <svg width="20" height="32" viewBox="0 0 20 32" aria-hidden="true" className="ml-1.5 shrink-0">
        <rect x="2" y="3" width="16" height="26" fill="var(--ground)" />
        <rect x="2" y={29 - level} width="16" height={level} fill={pot.colour} />
        <path d="M2 2v25q0 3 3 3h10q3 0 3-3V2" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      </svg>
      <span className="min-w-0 flex-1">
        <span className="flex justify-between gap-2">
          <b className="min-w-0 truncate">{pot.label}</b>
          <span className="whitespace-nowrap">{pot.ml === 0 ? "empty" : ml(pot.ml)}</span>
        </span>
        {pot.ml > 0 && (
          <span className={left.over ? "font-semibold text-signal" : "text-soft"}>
            {left.over && <span aria-hidden="true">▲ </span>}
            {left.says}
          </span>
        )}
        {pot.ml === 0 && <span className="text-soft">on {pot.pieces.length} pieces</span>}
      </span>
    </button>
  );
}
