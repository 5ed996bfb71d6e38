import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import {
  clock,
  into,
  keyOf,
  neighbour,
  pieceWords,
  type Operation,
  type Plan,
  type Session,
} from "./evenings";
import type { Timetable } from "./useTimetable";

const DRAGGED_FROM_PX = 6;

/** The session that lies under the pointer, and under what hangs from it. */
const sessionAt = (plan: Plan, dragged: Element, x: number, y: number) => {
  const start = document
    .elementsFromPoint(x, y)
    .filter((e) => !dragged.contains(e))
    .map((e) => e.closest<HTMLElement>("[data-session]"))
    .find(Boolean)?.dataset.session;
  return plan.sessions.find((s) => s.start === start) ?? null;
};

/**
 * An operation in its session. It is opened by a click, and moved to another session by dragging it there or with Alt and the arrows;
 * the arrows alone walk from one to the next.
 */
export function Block(props: {
  o: Operation;
  session: Session;
  plan: Plan;
  timetable: Timetable;
  first: boolean;
  x: (m: number) => string;
  top: number;
  open: (o: Operation) => void;
  /** Keeps the focus on it when it lies in another session. */
  follow: (o: Operation) => void;
}) {
  const { o, session, plan, timetable } = props;
  const [by, setBy] = useState<{ x: number; y: number } | null>(null);
  const from = useRef<{ x: number; y: number } | null>(null);
  const [begins, ends] = [into(session, o.start), into(session, o.end)];

  const keys = (e: KeyboardEvent<HTMLButtonElement>) => {
    const step = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[e.key] as -1 | 1 | undefined;
    if (!step) return;
    e.preventDefault();
    e.stopPropagation();
    if (e.altKey) {
      const to = neighbour(plan, o, step);
      if (to && !timetable.busy) {
        props.follow(o);
        void timetable.move(o, to);
      }
      return;
    }
    const all = [...document.querySelectorAll<HTMLButtonElement>("[data-operation]")];
    all[all.indexOf(e.currentTarget) + step]?.focus();
  };
  const pointer = {
    onPointerDown: (e: PointerEvent<HTMLButtonElement>) => {
      if (e.button !== 0) return;
      from.current = { x: e.clientX, y: e.clientY };
      e.currentTarget.setPointerCapture(e.pointerId);
    },
    onPointerMove: (e: PointerEvent) => {
      if (!from.current) return;
      const moved = { x: e.clientX - from.current.x, y: e.clientY - from.current.y };
      if (by || Math.hypot(moved.x, moved.y) > DRAGGED_FROM_PX) setBy(moved);
    },
    onPointerUp: (e: PointerEvent<HTMLButtonElement>) => {
      from.current = null;
      if (!by) return;
      setBy(null);
      const to = sessionAt(plan, e.currentTarget, e.clientX, e.clientY);
      if (to && to.start !== session.start && !timetable.busy) void timetable.move(o, to);
    },
    onPointerCancel: () => {
      from.current = null;
      setBy(null);
    },
  };
  return (
    <button
      type="button"
      data-operation={keyOf(o)}
      data-binds={o.binds ?? undefined}
      tabIndex={props.first ? 0 : -1}
      title={`${o.technique}, ${o.zone} on ${o.design}, ${pieceWords(o)}: ${clock(o.start)}–${clock(o.end)}. Drag it, or Alt with up and down, to another session.`}
      aria-label={`${clock(o.start)} ${o.technique}, ${o.zone} on ${o.design}, ${pieceWords(o)}${o.pinned ? ", pinned" : ""}`}
      onClick={() => !by && props.open(o)}
      onKeyDown={keys}
      {...pointer}
      className={`absolute flex h-[34px] touch-none flex-col overflow-hidden border border-line bg-card text-left text-[11px] leading-[15px] ${by ? "z-20 opacity-80 shadow-lg" : ""} ${o.pinned ? "border-t-[3px] border-t-ink" : ""}`}
      style={{
        left: props.x(begins),
        width: `max(7px, ${props.x(ends - begins)})`,
        top: props.top,
        transform: by ? `translate(${by.x}px, ${by.y}px)` : undefined,
      }}
    >
      {!o.pinned && <span className="h-[4px] w-full shrink-0" style={{ background: o.colour }} />}
      <span className="truncate px-1">{o.technique}</span>
      <span className="truncate px-1 text-soft">
        {o.zone} · {pieceWords(o)}
      </span>
    </button>
  );
}
