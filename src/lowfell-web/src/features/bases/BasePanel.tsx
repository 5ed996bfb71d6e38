import { useState } from "react";
import { Button } from "../../kit/Button";
import { BaseDrawing, Outline } from "./BaseDrawing";
import { countWords } from "./figures";
import { FlatMark } from "./Flats";
import { Handled } from "./Handled";
import { halfOf, type Base, type Element, type Tray } from "./types";
import { useHand } from "./useHand";

const MOST_ELEMENTS = 60;

/** One base, large: what lies on it is moved, added and taken away by hand, and the rules say what is broken. */
export function BasePanel(props: { tray: Tray; base: Base; fills: string; pxPerMm: number }) {
  const { tray, base, fills } = props;
  const [chosen, setChosen] = useState<number | null>(null);
  const hand = useHand(tray, base);
  const { elements } = hand;
  const kept = tray.version != null;
  const [hx, hy] = halfOf(tray.wish.shape!);
  const reach = Math.min(hx, hy);
  const remove = (index: number) => {
    hand.put(elements.filter((_, i) => i !== index));
    setChosen(null);
  };
  const add = (kind: Element["kind"]) => {
    const sizes = { rock: 0.16, cork: 0.24, tuft: 0.12, reed: 0.07, plank: 0.05 };
    const round = (n: number) => Math.round(n * 100) / 100;
    // It comes to lie opposite what is there, clear of the middle.
    const [wx, wy] = [0, 1].map((k) => elements.reduce((sum, e) => sum + (k ? e.y : e.x), 0));
    const turn = Math.atan2(-wy!, -wx!) + elements.length * 0.4;
    const far = reach * 0.55;
    hand.put([
      ...elements,
      {
        kind,
        x: round(Math.cos(turn) * far),
        y: round(Math.sin(turn) * far),
        radiusMm: round(sizes[kind] * reach),
        lengthMm: kind === "plank" ? round(reach * 0.5) : 0,
        turn: 0,
        half: false,
      },
    ]);
    setChosen(elements.length);
  };
  return (
    <section aria-label={`Base ${base.label}`}>
      <h2 className="text-base font-semibold">
        {base.label}{" "}
        <span className="text-xs font-normal text-soft">
          {countWords(elements)}
          {base.byHand && " · by hand"}
          {hand.waits && " · storing…"}
        </span>
      </h2>
      <div className="mt-2 rounded-[3px] bg-ground p-3">
        <BaseDrawing
          tray={tray}
          base={base}
          elements={elements}
          fills={fills}
          pxPerMm={props.pxPerMm}
          label={`${base.label} from above: ${countWords(elements)}`}
          className="mx-auto block max-h-[46vh] w-full"
        >
          <Outline
            shape={tray.wish.shape!}
            by={-tray.marginMm}
            fill="none"
            stroke="#fff"
            strokeWidth={0.18}
            strokeDasharray="0.9 0.7"
          />
          {tray.wish.flats?.map((f, i) => f && <FlatMark key={i} flat={f} />)}
          {kept && (
            <Handled
              tray={tray}
              base={base}
              elements={elements}
              chosen={chosen}
              onChoose={setChosen}
              onMove={(index, to) => hand.put(elements.map((e, i) => (i === index ? to : e)))}
              onRemove={remove}
            />
          )}
        </BaseDrawing>
      </div>
      {kept ? (
        <div role="group" aria-label="By hand" className="no-print mt-2 flex flex-wrap gap-1.5">
          {(["rock", "cork", "tuft", "reed", "plank"] as const).map((kind) => (
            <Button key={kind} disabled={elements.length >= MOST_ELEMENTS} onClick={() => add(kind)}>
              {kind === "cork" ? "Add cork" : `Add a ${kind}`}
            </Button>
          ))}
          <Button disabled={chosen === null || !elements[chosen]} onClick={() => remove(chosen!)}>
            Take it away
          </Button>
          {base.byHand && <Button onClick={hand.redraw}>As it was drawn</Button>}
        </div>
      ) : (
        <p className="mt-2 text-xs text-soft">Keep the bases first; then each can be changed by hand.</p>
      )}
      {kept && elements.length > 0 && (
        <p className="no-print mt-1 text-xs text-soft">
          Drag a thing, or go to it with Tab: arrows move it half a mm, with Shift two, Delete takes it away.
        </p>
      )}
      <Rules
        tray={tray}
        base={base}
        onMove={(index, x, y) => hand.put(elements.map((e, i) => (i === index ? { ...e, x, y } : e)))}
      />
    </section>
  );
}

function Rules(props: { tray: Tray; base: Base; onMove: (index: number, x: number, y: number) => void }) {
  const { base, tray } = props;
  return (
    <ul aria-label="Rules" className="mt-3 grid gap-2 text-sm">
      {base.broken.map((b, i) => (
        <li key={`${b.words} ${i}`} className="border-l-4 border-amber bg-amber-wash px-3 py-1.5">
          ▲ {b.words}
          {b.toX != null && b.toY != null && (
            <Button className="mt-1 block" onClick={() => props.onMove(b.elements.at(-1)!, b.toX!, b.toY!)}>
              Move it to the nearest place
            </Button>
          )}
        </li>
      ))}
      {base.broken.length === 0 && (
        <li className="border-l-4 border-line bg-card px-3 py-1.5">
          The rim is free for {tray.marginMm} mm, and every flat is clear.
          {base.difference != null &&
            ` The neighbour it is most like differs by ${base.difference} (at least ${tray.wantedDifference} is wanted).`}
        </li>
      )}
    </ul>
  );
}
