import type { Schema } from "../../api/client";

type Place = Schema["Region"];

/** Bands of a zone from its top, as shares of its height. */
const bands: Partial<Record<Place, [number, number]>> = {
  upward: [0, 0.14],
  "lower third": [2 / 3, 1],
  "around feet": [0.85, 1],
};

/** Marks that repeat over a zone, px: what of a tile they take in is the share that the place has. */
const scattered: Partial<Record<Place, { tile: number; d: string }>> = {
  // Three rounds of 6 px radius on 58 by 58: a tenth.
  spots: {
    tile: 58,
    d: "M6 12a6 6 0 1012 0a6 6 0 10-12 0M34 26a6 6 0 1012 0a6 6 0 10-12 0M14 46a6 6 0 1012 0a6 6 0 10-12 0",
  },
  "one in four": { tile: 36, d: "M0 0H18V18H0Z" },
  "recessed line": { tile: 20, d: "M0 7H20V13H0Z" },
};

const edges = new Set<Place>(["edges", "leading edges"]);

/** What the places of a zone are cut out with; once for the whole drawing. */
export function PlaceShapes() {
  return (
    <defs>
      {Object.entries(bands).map(([place, [from, to]]) => (
        <clipPath key={place} id={idOf(place)} clipPathUnits="objectBoundingBox">
          <rect y={from} width={1} height={to - from} />
        </clipPath>
      ))}
      {Object.entries(scattered).map(([place, { tile, d }]) => (
        <g key={place}>
          <pattern id={`tile-${idOf(place)}`} width={tile} height={tile} patternUnits="userSpaceOnUse">
            <path d={d} fill="#fff" />
          </pattern>
          <mask id={idOf(place)} maskUnits="userSpaceOnUse" x="0" y="0" width="640" height="330">
            <rect width="640" height="330" fill={`url(#tile-${idOf(place)})`} />
          </mask>
        </g>
      ))}
    </defs>
  );
}

/** One place of a zone, drawn where it lies on the outline. */
export function PlaceOn(props: { place: Place; d: string; fill: string; beside: string }) {
  const { place, d, fill } = props;
  const at = { "data-place": place };
  if (edges.has(place)) return <path {...at} d={d} fill="none" stroke={fill} strokeWidth="4" />;
  if (place === "within rim")
    return (
      <g {...at}>
        <path d={d} fill={fill} fillRule="evenodd" />
        <path d={d} fill="none" stroke={props.beside} strokeWidth="6" />
      </g>
    );
  const cut = `url(#${idOf(place)})`;
  return (
    <path
      {...at}
      d={d}
      fill={fill}
      fillRule="evenodd"
      clipPath={place in bands ? cut : undefined}
      mask={place in scattered ? cut : undefined}
    />
  );
}

const idOf = (place: string) => `place-${place.replaceAll(" ", "-")}`;
