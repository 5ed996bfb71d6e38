import { useState, type KeyboardEvent, type PointerEvent } from "react";
import { Outline } from "./BaseDrawing";
import { moved, whereWords } from "./figures";
import { arrowMm, mmAt } from "./grip";
import { halfOf, type Flat, type Shape } from "./types";

/** Where something is to stand. */
export function FlatMark({ flat: f, className }: { flat: Flat; className?: string }) {
  return (
    <rect
      x={f.x - f.widthMm / 2}
      y={f.y - f.heightMm / 2}
      width={f.widthMm}
      height={f.heightMm}
      rx={Math.min(f.widthMm, f.heightMm) / 2}
      transform={`rotate(${f.turn} ${f.x} ${f.y})`}
      fill="#fff"
      fillOpacity={0.28}
      stroke="#000"
      strokeOpacity={0.6}
      strokeWidth={0.2}
      className={className}
    />
  );
}

/** The flats of a base from above, to be put where they belong: dragged, or moved with the arrows and taken away with Delete. */
export function FlatsDrawing(props: {
  shape: Shape;
  marginMm: number;
  flats: readonly Flat[];
  onMove: (index: number, to: Flat) => void;
  onRemove: (index: number) => void;
}) {
  const { shape, flats } = props;
  const [hx, hy] = halfOf(shape);
  // While it is dragged only this drawing follows; the tray is drawn anew where it is let go.
  const [held, hold] = useState<{ index: number; to: Flat; dx: number; dy: number } | null>(null);
  const key = (index: number) => (e: KeyboardEvent) => {
    const by = arrowMm(e);
    if (by) props.onMove(index, moved(flats[index]!, ...by));
    else if (e.key === "Delete" || e.key === "Backspace") props.onRemove(index);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const drag = (e: PointerEvent<SVGElement>) => {
    if (!held) return;
    const [x, y] = mmAt(e);
    hold({ ...held, to: moved(held.to, x + held.dx - held.to.x, y + held.dy - held.to.y) });
  };
  const letGo = () => {
    const was = held && flats[held.index]!;
    if (was && (was.x !== held.to.x || was.y !== held.to.y)) props.onMove(held.index, held.to);
    hold(null);
  };
  return (
    <svg
      role="group"
      aria-label="Flats from above"
      viewBox={`${-hx - 1} ${-hy - 1} ${2 * hx + 2} ${2 * hy + 2}`}
      className="mx-auto mt-1.5 block max-h-40 w-full rounded-[3px] bg-ground"
    >
      <Outline shape={shape} fill="#8a8377" />
      <Outline
        shape={shape}
        by={-props.marginMm}
        fill="none"
        stroke="#fff"
        strokeWidth={0.18}
        strokeDasharray="0.9 0.7"
      />
      {flats.map((flat, i) => {
        const f = held?.index === i ? held.to : flat;
        return (
          <g
            key={i}
            role="button"
            tabIndex={0}
            aria-label={`${f.kind}, flat ${i + 1}, ${whereWords(f, [hx, hy])}`}
            data-flat={i + 1}
            className="cursor-grab touch-none outline-none [&:focus-visible>rect]:stroke-tide [&:focus-visible>rect]:[stroke-width:0.6]"
            onKeyDown={key(i)}
            onPointerDown={(e) => {
              const [x, y] = mmAt(e);
              hold({ index: i, to: flat, dx: flat.x - x, dy: flat.y - y });
              e.currentTarget.setPointerCapture(e.pointerId);
            }}
            onPointerMove={drag}
            onPointerUp={letGo}
            onPointerCancel={() => hold(null)}
          >
            <FlatMark flat={f} />
          </g>
        );
      })}
    </svg>
  );
}
