import { marks } from "./marks";
import type { Cell, Trial } from "./types";

const MARKS_A_CM2 = 14,
  JOINT_MM = 0.5;

/**
 * The tile as it will look: every field in its predicted colours, raised marks and recesses on it, with the lines to mask along. In mm, so that it
 * prints at true size.
 */
export function TileDrawing(props: {
  trial: Trial;
  chosen?: string | null;
  /** Lines of the step that is looked at; all of them where none is. */
  masks?: readonly { upright: boolean; atMm: number }[];
  onChoose?: (cell: string) => void;
  trueSize?: boolean;
}) {
  const { trial, chosen, onChoose } = props;
  const { tile } = trial;
  const all = props.masks ?? trial.steps.flatMap((s) => s.masks);
  const lines = [...new Map(all.map((m) => [`${m.upright} ${m.atMm}`, m])).values()];
  const edge = 4;
  const size = { w: tile.widthMm + 2 * edge, h: tile.heightMm + 2 * edge };
  const [right, bottom] = [tile.widthMm - trial.leftMm, tile.heightMm - trial.topMm];
  return (
    <svg
      viewBox={`${-edge} ${-edge} ${size.w} ${size.h}`}
      role="group"
      aria-label={`The tile, ${tile.widthMm} × ${tile.heightMm} mm, ${trial.cells.length} fields`}
      {...(props.trueSize ? { width: `${size.w}mm`, height: `${size.h}mm` } : {})}
      className={props.trueSize ? "" : "max-h-[52vh] w-full"}
    >
      {tile.round ? (
        <ellipse
          cx={tile.widthMm / 2}
          cy={tile.heightMm / 2}
          rx={tile.widthMm / 2}
          ry={tile.heightMm / 2}
          className="fill-aside stroke-line"
          strokeWidth={0.3}
        />
      ) : (
        <rect
          width={tile.widthMm}
          height={tile.heightMm}
          className="fill-aside stroke-line"
          strokeWidth={0.3}
        />
      )}
      <g transform={`translate(${trial.leftMm} ${trial.topMm})`}>
        {trial.cells.map((c) => (
          <Field
            key={c.cell}
            cell={c}
            words={c.levels.map((l, i) => trial.factors[i]!.levels[l]).join(", ")}
            chosen={c.cell === chosen}
            {...(onChoose ? { onChoose: () => onChoose(c.cell) } : {})}
          />
        ))}
      </g>
      {lines.map((m) => {
        const at = m.atMm + (m.upright ? trial.leftMm : trial.topMm);
        return (
          <line
            key={`${m.upright} ${m.atMm}`}
            {...(m.upright
              ? { x1: at, x2: at, y1: trial.topMm - 3, y2: bottom + 3 }
              : { x1: trial.leftMm - 3, x2: right + 3, y1: at, y2: at })}
            className="stroke-ink"
            strokeWidth={0.35}
            strokeDasharray="1.6 1.2"
          />
        );
      })}
    </svg>
  );
}

function Field(props: { cell: Cell; words: string; chosen: boolean; onChoose?: () => void }) {
  const { cell: c, words, chosen, onChoose } = props;
  const count = Math.round((c.widthMm * c.heightMm * MARKS_A_CM2) / 100);
  const says = `Field ${c.number}: ${words}`;
  return (
    <g
      transform={`translate(${c.leftMm} ${c.topMm})`}
      {...(onChoose
        ? {
            role: "button",
            tabIndex: 0,
            "aria-label": says,
            "aria-pressed": chosen,
            onClick: onChoose,
            onKeyDown: (e: React.KeyboardEvent) => {
              if (e.key !== "Enter" && e.key !== " ") return;
              e.preventDefault();
              onChoose();
            },
            className: "cursor-pointer outline-none [&:focus-visible>rect:last-of-type]:stroke-tide",
          }
        : {})}
    >
      <title>{says}</title>
      <rect width={c.widthMm} height={c.heightMm} fill={c.field} />
      {[0.33, 0.67].map((y) => (
        <rect key={y} y={c.heightMm * y - JOINT_MM / 2} width={c.widthMm} height={JOINT_MM} fill={c.recess} />
      ))}
      {marks(c.number, count).map((m, i) => (
        <rect
          key={i}
          x={0.4 + m.x * (c.widthMm - 2.4)}
          y={0.4 + m.y * (c.heightMm - 2.4)}
          width={m.size * 1.3}
          height={m.size * 0.8}
          transform={`rotate(${m.turn} ${m.x * (c.widthMm - 2.4) + 1} ${m.y * (c.heightMm - 2.4) + 0.8})`}
          fill={c.raised}
        />
      ))}
      <rect x={0.7} y={0.7} width={3.6} height={3.6} fill="#ffffff" />
      <text x={2.5} y={3.35} textAnchor="middle" fontSize={2.4} fontWeight={700} fill="#111111">
        {c.number}
      </text>
      <rect
        x={0.25}
        y={0.25}
        width={c.widthMm - 0.5}
        height={c.heightMm - 0.5}
        fill="none"
        stroke={chosen ? "currentColor" : "transparent"}
        strokeWidth={0.6}
      />
    </g>
  );
}
