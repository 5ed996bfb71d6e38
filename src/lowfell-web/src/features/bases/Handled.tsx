import { useRef, type KeyboardEvent } from "react";
import { moved, whereWords } from "./figures";
import { arrowMm, mmAt } from "./grip";
import { halfOf, type Base, type Element, type Tray } from "./types";

const LEAST_TARGET_MM = 1.4;

/** What lies on a base, to be taken hold of: dragged, or moved with the arrows and taken away with Delete. */
export function Handled(props: {
  tray: Tray;
  base: Base;
  elements: readonly Element[];
  chosen: number | null;
  onChoose: (index: number) => void;
  onMove: (index: number, to: Element) => void;
  onRemove: (index: number) => void;
}) {
  const { tray, base, elements } = props;
  const half = halfOf(tray.wish.shape!);
  const grip = useRef<{ index: number; dx: number; dy: number } | null>(null);
  const key = (index: number) => (e: KeyboardEvent) => {
    const by = arrowMm(e);
    if (by) props.onMove(index, moved(elements[index]!, ...by));
    else if (e.key === "Delete" || e.key === "Backspace") props.onRemove(index);
    else if (e.key === "Enter" || e.key === " ") props.onChoose(index);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const wrong = new Set(base.broken.flatMap((b) => b.elements));
  return (
    <>
      {elements.map((e, i) => (
        <g
          key={i}
          role="button"
          tabIndex={0}
          aria-pressed={props.chosen === i}
          aria-label={`${e.half ? "half rock" : e.kind} ${i + 1}, ${whereWords(e, half)}`}
          data-element={e.kind}
          className="cursor-grab touch-none outline-none [&:focus-visible>:first-child]:stroke-tide"
          onKeyDown={key(i)}
          onFocus={() => props.onChoose(i)}
          onPointerDown={(ev) => {
            const [x, y] = mmAt(ev);
            grip.current = { index: i, dx: e.x - x, dy: e.y - y };
            ev.currentTarget.setPointerCapture(ev.pointerId);
            props.onChoose(i);
          }}
          onPointerMove={(ev) => {
            const g = grip.current;
            if (!g || g.index !== i) return;
            const [x, y] = mmAt(ev);
            props.onMove(i, moved(e, x + g.dx - e.x, y + g.dy - e.y));
          }}
          onPointerUp={() => (grip.current = null)}
          onPointerCancel={() => (grip.current = null)}
        >
          <circle
            cx={e.x}
            cy={e.y}
            r={Math.max(LEAST_TARGET_MM, e.radiusMm + e.lengthMm / 2) + 0.3}
            fill="transparent"
            strokeWidth={0.35}
            className={
              wrong.has(i) ? "stroke-signal" : props.chosen === i ? "stroke-tide" : "stroke-transparent"
            }
            strokeDasharray={wrong.has(i) ? "0.9 0.6" : undefined}
          />
        </g>
      ))}
    </>
  );
}
