import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useMemo, useRef } from "react";
import { differing, potLetters, signs, type Cores, type Piece } from "./cores";

const COLUMN_PX = 58,
  NAMES_PX = 150,
  ROW_PX = 30;

/**
 * Cores side by side, the newest layer on top. A layer runs across all pieces that have it; where one has not, the ground shows. Only the
 * columns that are in view are drawn.
 */
export function Drawing(props: {
  cores: Cores;
  pieces: readonly Piece[];
  chosen: string | null;
  onChoose: (id: string | null) => void;
}) {
  const { cores, pieces, chosen } = props;
  const box = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library
  const columns = useVirtualizer({
    horizontal: true,
    count: pieces.length,
    estimateSize: () => COLUMN_PX,
    getScrollElement: () => box.current,
    overscan: 5,
    paddingStart: NAMES_PX,
  });
  const lines = useMemo(() => [...cores.lines].reverse(), [cores]);
  const letters = useMemo(
    () => new Map(cores.lines.map((l) => [l.layerId, potLetters(cores.pieces, l.layerId)])),
    [cores],
  );
  if (pieces.length === 0) return <p className="mt-3 text-soft">No piece differs.</p>;
  return (
    <div ref={box} className="mt-2 overflow-auto rounded-[3px] border border-line bg-ground" data-cores>
      <div
        className="relative"
        style={{ width: columns.getTotalSize(), height: (lines.length + 1) * ROW_PX }}
      >
        <ol
          aria-hidden="true"
          className="sticky left-0 z-10 bg-card text-xs text-ink"
          style={{ width: NAMES_PX, height: (lines.length + 1) * ROW_PX }}
        >
          <li style={{ height: ROW_PX }} className="border-r border-b border-line" />
          {lines.map((l) => (
            <li
              key={l.layerId}
              style={{ height: ROW_PX }}
              className="truncate border-r border-b border-line px-2 leading-[29px]"
              title={l.paint}
            >
              {l.number ?? "+"} {l.technique}
            </li>
          ))}
        </ol>
        {columns.getVirtualItems().map((v) => {
          const p = pieces[v.index]!;
          return (
            <Column
              key={p.id}
              piece={p}
              left={v.start}
              lines={lines}
              letters={letters}
              chosen={p.id === chosen}
              onChoose={props.onChoose}
            />
          );
        })}
      </div>
    </div>
  );
}

/** One piece from top to bottom. It is drawn once, however far is scrolled. */
const Column = memo(function Column(props: {
  piece: Piece;
  left: number;
  lines: Cores["lines"];
  letters: ReadonlyMap<string, ReadonlyMap<string, string>>;
  chosen: boolean;
  onChoose: (id: string | null) => void;
}) {
  const { piece: p, left, lines, letters, chosen } = props;
  const cells = new Map(p.cells.map((c) => [c.layerId, c]));
  return (
    <div
      className="absolute top-0 [contain:strict]"
      style={{ left, width: COLUMN_PX, height: (lines.length + 1) * ROW_PX }}
    >
      <button
        type="button"
        aria-pressed={chosen}
        data-core={p.label}
        className={`block w-full border-r border-b border-line text-xs font-semibold ${chosen ? "bg-tide text-on-tide" : "bg-card text-ink"}`}
        style={{ height: ROW_PX }}
        onClick={() => props.onChoose(chosen ? null : p.id)}
      >
        {p.label}
        {differing(p) && <span> ▲</span>}
      </button>
      {lines.map((l) => {
        const cell = cells.get(l.layerId)!;
        const said = signs(p, l.layerId).join(" ");
        const letter = cell.pot ? letters.get(l.layerId)?.get(cell.pot) : undefined;
        return (
          <div
            key={l.layerId}
            aria-hidden="true"
            className={`relative border-b border-[rgb(0_0_0/0.25)] ${cell.colour ? "" : "border-dashed"}`}
            style={{ height: ROW_PX, background: cell.colour ?? "transparent" }}
          >
            {(said || letter) && (
              <span className="absolute top-1.5 left-1/2 -translate-x-1/2 rounded-[2px] bg-card px-1 text-xs leading-tight whitespace-nowrap text-ink">
                {[said, letter].filter(Boolean).join(" ")}
              </span>
            )}
          </div>
        );
      })}
    </div>
  );
});
