import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import { moved, whereWords } from "./figures";
import { halfOf, type Base, type Element, type Tray } from "./types";

const STEP_MM = 0.5,
  LEAP_MM = 2,
  LEAST_TARGET_MM = 1.4;

const arrows: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

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
  const point = (e: PointerEvent<SVGElement>) => {
    const svg = e.currentTarget.ownerSVGElement!;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM()!.inverse());
    return [at.x, at.y] as const;
  };
  const key = (index: number) => (e: KeyboardEvent) => {
    const arrow = arrows[e.key];
    if (arrow) {
      const by = e.shiftKey ? LEAP_MM : STEP_MM;
      props.onMove(index, moved(elements[index]!, arrow[0] * by, arrow[1] * by));
    } else if (e.key === "Delete" || e.key === "Backspace") props.onRemove(index);
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
            const [x, y] = point(ev);
            grip.current = { index: i, dx: e.x - x, dy: e.y - y };
            ev.currentTarget.setPointerCapture(ev.pointerId);
            props.onChoose(i);
          }}
          onPointerMove={(ev) => {
            const g = grip.current;
            if (!g || g.index !== i) return;
            const [x, y] = point(ev);
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
