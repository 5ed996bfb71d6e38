import { useQuery } from "@tanstack/react-query";
import { zoneQuery } from "../../api/queries";
import { section } from "../../drawing/section";
import { PX_PER_MM, cut } from "./cut";
import type { Piece, Zone } from "./types";

const W = 560,
  H = 150;

/** A section through the largest mark of a piece: its film where the plan puts it, among all others. */
export function PieceSection({ zone, piece, layerId }: { zone: Zone; piece: Piece; layerId: string }) {
  const sheet = useQuery(zoneQuery(zone.zoneId));
  const found = cut(piece.marks, zone.face.widthMm, W / PX_PER_MM);
  if (!sheet.data || !found) return null;
  const { reading, zone: measures } = sheet.data;
  const drawing = section(
    { ...measures },
    reading.layers.map((l) =>
      l.id === layerId
        ? {
            ...l,
            placed: {
              at: found.at.map(([a, b]) => [a * PX_PER_MM, b * PX_PER_MM] as const),
              fill: piece.colour,
            },
          }
        : l,
    ),
    W,
    H,
  );
  return (
    <figure className="overflow-hidden rounded-[3px] bg-ground text-[var(--on-ground)]">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`Section through the largest mark of ${piece.label}, ${found.fromMm.toFixed(0)} to ${(found.fromMm + W / PX_PER_MM).toFixed(0)} mm from the left`}
        className="block h-32 w-full"
      >
        <path d={drawing.ground} fill={reading.ground} />
        {drawing.strata.map((s) => (
          <g key={s.id}>
            {s.runs.map((r, i) => (
              <path key={i} d={r.d} fill={r.fill} shapeRendering="crispEdges" />
            ))}
            <path
              d={s.outline}
              fill="none"
              stroke="#000"
              strokeOpacity={s.id === layerId ? 0.8 : 0.25}
              strokeWidth={s.id === layerId ? 1.6 : 0.6}
            />
          </g>
        ))}
      </svg>
      <figcaption className="px-2 pb-1 text-xs">
        Section through the edge of the largest mark, films drawn{" "}
        {Math.max(1, Math.round(drawing.thicker / 10) * 10)} × thicker than life
      </figcaption>
    </figure>
  );
}
