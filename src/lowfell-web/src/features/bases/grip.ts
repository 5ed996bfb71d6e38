import type { KeyboardEvent, PointerEvent } from "react";

const STEP_MM = 0.5,
  LEAP_MM = 2;

const arrows: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Where a pointer is in the drawing that it is over, in the mm of that. */
export function mmAt(e: PointerEvent<SVGElement>): readonly [number, number] {
  const svg = e.currentTarget.ownerSVGElement!;
  const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM()!.inverse());
  return [at.x, at.y];
}

/** By how much an arrow moves what is taken hold of, mm: half a mm, with Shift two. Null for any other key. */
export function arrowMm(e: KeyboardEvent): readonly [number, number] | null {
  const arrow = arrows[e.key];
  const by = e.shiftKey ? LEAP_MM : STEP_MM;
  return arrow ? [arrow[0] * by, arrow[1] * by] : null;
}
