import { relief } from "../../drawing/relief";
import type { Tray } from "./types";

/** The textures of a tray as patterns at true size, for all drawings on the page; at so many px to the mm. */
export function Fills({
  tray,
  id,
  fromTable,
  pxPerMm,
}: {
  tray: Tray;
  id: string;
  fromTable: boolean;
  pxPerMm: number;
}) {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden="true" focusable="false">
      <defs>
        {tray.textures.map((t, i) => {
          const tile = relief(t.surface, t.shares, pxPerMm);
          const seen = fromTable ? t.fromTable : t.near;
          return (
            <pattern
              key={i}
              id={`${id}-${i}`}
              width={tile.width}
              height={tile.height}
              patternUnits="userSpaceOnUse"
              patternTransform={`scale(${1 / pxPerMm})`}
            >
              <rect width={tile.width} height={tile.height} fill={seen[tile.ground]} />
              {tile.over.map((o) => (
                <path key={o.where} d={o.d} fill={seen[o.where]} />
              ))}
            </pattern>
          );
        })}
      </defs>
    </svg>
  );
}
