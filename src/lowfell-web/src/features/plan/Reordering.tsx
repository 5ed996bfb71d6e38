import {
  closestCenter,
  DndContext,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragOverEvent,
} from "@dnd-kit/core";
import { SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { useCallback, useLayoutEffect, useRef, type RefObject } from "react";

/**
 * Lets the rows of a list be taken by hand. It stands beside the list and not around it, so that it can come later than the list and
 * draws no row anew: what moves is the rows that are there.
 */
export function Reordering(props: {
  list: RefObject<HTMLElement | null>;
  ids: readonly string[];
  /** A row that stays where it is, since it is being worked in. */
  held: string | null;
  onOver: (from: string, to: string) => void;
  /** Null where it was let go of with nothing changed. */
  onEnd: (from: string, to: string | null) => void;
}) {
  const { onOver, onEnd } = props;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const last = useRef("");
  const over = useCallback(
    ({ active, over }: DragOverEvent) => {
      const key = `${active.id}>${over?.id}`;
      if (!over || key === last.current) return;
      last.current = key;
      onOver(String(active.id), String(over.id));
    },
    [onOver],
  );
  const end = useCallback(
    ({ active, over }: DragEndEvent) => {
      last.current = "";
      onEnd(String(active.id), over && over.id !== active.id ? String(over.id) : null);
    },
    [onEnd],
  );
  useLayoutEffect(() => props.list.current?.setAttribute("data-drags", ""), [props.list]);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragOver={over}
      onDragEnd={end}
      onDragCancel={({ active }) => onEnd(String(active.id), null)}
    >
      <SortableContext items={[...props.ids]} strategy={verticalListSortingStrategy}>
        {props.ids.map((id) => (
          <Handle key={id} id={id} list={props.list} disabled={id === props.held} />
        ))}
      </SortableContext>
    </DndContext>
  );
}

const rowOf = (list: HTMLElement | null, id: string) =>
  list?.querySelector<HTMLElement>(`[data-row="${id}"]`) ?? null;

/** A row's hold: the row itself is drawn by the list. */
function Handle(props: { id: string; list: RefObject<HTMLElement | null>; disabled: boolean }) {
  const { id, list, disabled } = props;
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id, disabled });
  const call = useRef(listeners);
  useLayoutEffect(() => {
    call.current = listeners;
  });
  useLayoutEffect(() => {
    const here = rowOf(list.current, id);
    setNodeRef(here);
    const hold = here?.querySelector<HTMLElement>("[data-select]");
    const down = (e: PointerEvent) => call.current?.["onPointerDown"]?.({ nativeEvent: e });
    hold?.addEventListener("pointerdown", down);
    return () => {
      hold?.removeEventListener("pointerdown", down);
      setNodeRef(null);
    };
  }, [list, id, setNodeRef]);
  useLayoutEffect(() => {
    const here = rowOf(list.current, id);
    if (!here) return;
    here.style.transform = CSS.Translate.toString(transform) ?? "";
    here.style.transition = transition ?? "";
    here.toggleAttribute("data-held", isDragging);
  });
  return null;
}
