import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
} from "react";
import { Later } from "../../kit/Later";
import type { ColumnProps } from "./column";
import { LayerRow } from "./LayerRow";
import { FETCH_AFTER_MS } from "./later";

/** Nobody takes a row by hand before the pointer is there: what that needs comes then, or once the first view stands. */
const reordering = () => import("./Reordering").then((m) => m.Reordering);

/** What the rows are drawn from; the frame around them stays as it is while a slider moves. */
const Column = createContext<ColumnProps | null>(null);

/** The rows themselves. The column is a list; each entry says its colours in words. */
function Rows() {
  const props = useContext(Column)!;
  const { layers, reading, selected, newestOnTop } = props;
  const rows = newestOnTop ? [...layers].reverse() : layers;
  const readings = new Map(reading.layers.map((l) => [l.id, l]));
  return rows.map((layer) => (
    <LayerRow
      key={layer.id}
      {...props}
      layer={layer}
      number={layers.indexOf(layer) + 1}
      said={readings.get(layer.id)}
      findings={reading.findings.filter((f) => f.layers[0] === layer.id && !f.accepted)}
      tabbable={selected === layer.id || (selected === null && layer === rows[0])}
    />
  ));
}

const rowsOnce = <Rows />;

/** The stack as a list, with the colours of recess, field and raised running up beside it. */
export function StackColumn(props: ColumnProps) {
  const { layers, reading, newestOnTop } = props;
  const list = useRef<HTMLOListElement>(null);
  const [byHand, setByHand] = useState(false);
  useEffect(() => {
    const timer = window.setTimeout(() => setByHand(true), FETCH_AFTER_MS);
    return () => window.clearTimeout(timer);
  }, []);
  const rows = newestOnTop ? [...layers].reverse() : layers;
  const key = rows.map((l) => l.id).join();
  const ids = useMemo(() => (key ? key.split(",") : []), [key]);

  // What the drag calls must stay the same and still act on what is there now.
  const now = useRef(props);
  useEffect(() => {
    now.current = props;
  });
  const reordered = useCallback((from: string, to: string) => {
    const next = [...now.current.layers];
    const at = next.findIndex((l) => l.id === from);
    const target = next.findIndex((l) => l.id === to);
    const [moved] = next.splice(at, 1);
    next.splice(target, 0, moved!);
    return next;
  }, []);
  // Colours and remarks follow while the layer is still in the hand.
  const dragOver = useCallback(
    (from: string, to: string) => now.current.onPreview(reordered(from, to)),
    [reordered],
  );
  const dragEnd = useCallback(
    (from: string, to: string | null) =>
      to === null ? now.current.onPreview(now.current.layers) : now.current.onReorder(reordered(from, to)),
    [reordered],
  );

  const onKeyDown = useCallback((e: KeyboardEvent) => {
    const props = now.current;
    const rows = props.newestOnTop ? [...props.layers].reverse() : props.layers;
    const at = (e.target as HTMLElement).closest<HTMLElement>("[data-row]")?.dataset["row"];
    if (!at || (e.target as HTMLElement).closest("[data-editor]")) return;
    const i = rows.findIndex((l) => l.id === at);
    const step = e.key === "ArrowDown" ? 1 : e.key === "ArrowUp" ? -1 : 0;
    if (step && e.altKey) {
      e.preventDefault();
      props.onMove(at, props.newestOnTop ? -step : step);
    } else if (step) {
      e.preventDefault();
      const next = rows[i + step];
      if (next) {
        props.onSelect(next.id);
        props.focusRow(next.id);
      }
    } else if (e.key === "Delete") {
      e.preventDefault();
      props.onRemove(at);
    } else if (e.key === "d" && !e.ctrlKey && !e.metaKey) {
      e.preventDefault();
      props.onDuplicate(at);
    } else if (e.key === "Home" || e.key === "End") {
      e.preventDefault();
      const end = e.key === "Home" ? rows[0] : rows.at(-1);
      props.onSelect(end?.id ?? null);
      props.focusRow(end?.id ?? null);
    }
  }, []);
  const shown = useMemo(
    () => (
      <ol
        ref={list}
        reversed={newestOnTop}
        aria-label={newestOnTop ? "Layers, newest on top" : "Layers, first to last"}
        className="border-t border-hair"
        onKeyDown={onKeyDown}
        onPointerEnter={() => setByHand(true)}
      >
        {rowsOnce}
      </ol>
    ),
    [newestOnTop, onKeyDown],
  );

  const bare = (
    <div className="flex items-center py-0.5 pl-2.5 text-xs text-soft">
      <span className="flex-1">Bare {props.sheet.zone.substrate}</span>
      <svg className="h-1.5 w-[108px] shrink-0 xl:w-[138px]" aria-hidden="true">
        <rect width="100%" height="6" fill={reading.ground} />
      </svg>
    </div>
  );

  return (
    <section aria-label="The stack" className="mt-2 flex min-h-0 flex-1 flex-col">
      <div className="flex items-end pb-0.5 text-xs text-soft">
        <button
          type="button"
          className="min-h-6 px-2.5 underline decoration-dotted underline-offset-2 hover:text-ink"
          onClick={props.onOrder}
        >
          {newestOnTop ? "Newest on top" : "First to last"}
        </button>
        <span className="ml-auto pr-2.5">wait after</span>
        <span className="grid w-[108px] shrink-0 grid-cols-3 xl:w-[138px] text-center">
          <span>recess</span>
          <span>field</span>
          <span>raised</span>
        </span>
      </div>
      <div className="flex-1 pb-2 max-md:min-h-0 md:pane" data-scroll="stack">
        {!newestOnTop && bare}
        {layers.length === 0 && (
          <p className="border border-dashed border-line bg-card p-4 text-soft">
            Nothing on it yet. Start with a primer: press <kbd>a</kbd> or “Add layer”.
          </p>
        )}
        <Column.Provider value={props}>
          {shown}
          <Later
            load={reordering}
            wanted={byHand}
            with={{ list, ids, held: props.editing, onOver: dragOver, onEnd: dragEnd }}
          />
        </Column.Provider>
        {newestOnTop && bare}
      </div>
    </section>
  );
}
