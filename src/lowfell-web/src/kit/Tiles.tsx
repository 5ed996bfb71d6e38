import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useState, type ReactNode } from "react";
import { columnsIn, rowsOf, type Group } from "./tiles";

const GAP = 10,
  HEADING = 34;

/** Things as tiles under headings. Only what can be seen is drawn, so that thousands cost no more than a screen of them. */
export function Tiles<T extends { id: string }>(props: {
  label: string;
  groups: readonly Group<T>[];
  /** The least width of a tile, and about how high one is, px. */
  least: number;
  high: number;
  /** What is to be in sight. */
  inSight?: string;
  render: (item: T) => ReactNode;
}) {
  const { groups, least, high, inSight } = props;
  const [frame, setFrame] = useState<HTMLDivElement | null>(null);
  const [columns, setColumns] = useState(0);
  useEffect(() => {
    if (!frame) return;
    const measure = () => setColumns(columnsIn(frame.clientWidth - 2 * PAD, least, GAP));
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(frame);
    return () => watch.disconnect();
  }, [frame, least]);

  const rows = useMemo(() => (columns ? rowsOf(groups, columns) : []), [groups, columns]);
  const all = useMemo(() => groups.reduce((n, g) => n + g.items.length, 0), [groups]);
  // What the list gives is read while drawing and handed to nobody.
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame,
    estimateSize: (i) => ("items" in rows[i]! ? high + GAP : HEADING),
    overscan: 3,
  });

  // What was opened stays in sight when the tiles flow anew beside it.
  useEffect(() => {
    const at = rows.findIndex((r) => "items" in r && r.items.some((x) => x.id === inSight));
    if (at >= 0) list.scrollToIndex(at, { align: "auto" });
  }, [inSight, rows, list]);

  return (
    <div ref={setFrame} className="min-h-0 flex-1 overflow-y-auto pb-6" data-tiles={all}>
      <div role="list" aria-label={props.label} className="relative" style={{ height: list.getTotalSize() }}>
        {list.getVirtualItems().map((v) => {
          const row = rows[v.index]!;
          return (
            <div
              key={v.key}
              data-index={v.index}
              ref={list.measureElement}
              role="presentation"
              className="absolute inset-x-0 top-0 px-5"
              style={{ transform: `translateY(${v.start}px)` }}
            >
              {"items" in row ? (
                <div
                  role="presentation"
                  className="grid pb-2.5"
                  style={{ gap: GAP, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
                >
                  {row.items.map((item, i) => (
                    <div key={item.id} role="listitem" aria-setsize={all} aria-posinset={row.first + i + 1}>
                      {props.render(item)}
                    </div>
                  ))}
                </div>
              ) : (
                <div role="listitem" aria-label={row.heading} className="pt-2.5 pb-1.5 text-xs text-soft">
                  {row.heading}
                </div>
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

const PAD = 20;
