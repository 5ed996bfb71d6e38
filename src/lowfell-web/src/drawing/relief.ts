import type { Schema } from "../api/client";

// A tile of a surface whose areas are the zone's own shares: every cell of a tiling shrinks towards its middle, so that what
// opens between cells is the recess, and a smaller cell on it, shifted away from the light, leaves a raised rim.

export type SurfaceOf = Schema["SurfaceDto"];
export type Shares = { raised: number; field: number; recess: number };
export type Where = "raised" | "field" | "recess";
export type Point = readonly [number, number];
/** What lies over what, the ground of the tile first; sizes in px. */
export type Tile = {
  width: number;
  height: number;
  ground: Where;
  over: { where: Where; d: string }[];
  rivets: string;
};

type Tiling = { width: number; height: number; cells: Point[][] };

const row = (y: number, h: number, xs: readonly number[], shift: number): Point[][] =>
  xs.slice(1).map((x, i) => [
    [xs[i]! + shift, y],
    [x + shift, y],
    [x + shift, y + h],
    [xs[i]! + shift, y + h],
  ]);

const times = (n: number, of: number) => Array.from({ length: n + 1 }, (_, i) => i * of);

/** Two courses, the upper half a block along. */
const courses = (l: number, h: number): Tiling => ({
  width: 2 * l,
  height: 2 * h,
  cells: [...row(0, h, times(2, l), 0), ...row(h, h, times(2, l), l / 2)],
});

/** Bars side by side, each as long as it is wide so many times, and staggered. */
const bars = (wide: number, long: number, upright: boolean): Tiling => {
  const along: Tiling = {
    width: wide * long,
    height: 2 * wide,
    cells: [...row(0, wide, [0, wide * long], 0), ...row(wide, wide, [0, wide * long], (wide * long) / 3)],
  };
  return upright
    ? {
        width: along.height,
        height: along.width,
        cells: along.cells.map((c) => c.map(([x, y]) => [y, x] as const)),
      }
    : along;
};

/** Irregular cells of a mean size: six on a tile of 60 by 48. */
const IRREGULAR = Math.sqrt((60 * 48) / 6);
const irregular: Point[][] = [
  [
    [0, 0],
    [26, 0],
    [32, 16],
    [14, 22],
    [0, 18],
  ],
  [
    [26, 0],
    [60, 0],
    [60, 18],
    [46, 24],
    [32, 16],
  ],
  [
    [0, 18],
    [14, 22],
    [20, 40],
    [8, 48],
    [0, 48],
  ],
  [
    [14, 22],
    [32, 16],
    [46, 24],
    [42, 42],
    [20, 40],
  ],
  [
    [46, 24],
    [60, 18],
    [60, 48],
    [52, 48],
    [42, 42],
  ],
  [
    [8, 48],
    [20, 40],
    [42, 42],
    [52, 48],
  ],
];
const lumps = (mm: number): Tiling => {
  const by = mm / IRREGULAR;
  return {
    width: 60 * by,
    height: 48 * by,
    cells: irregular.map((c) => c.map(([x, y]) => [x * by, y * by] as const)),
  };
};

const BOARD_LONG = 9,
  LINK_LONG = 40,
  RIB_LONG = 60;

/** Each list of cells covers its tile once, in mm; cells that cross an edge come back in on the other side. A plain face has none. */
function tilingOf(s: SurfaceOf): Tiling | null {
  switch (s.kind) {
    case "courses":
    case "slates":
      return courses(s.lengthMm, s.heightMm);
    case "panels":
      return { width: s.lengthMm, height: s.heightMm, cells: row(0, s.heightMm, [0, s.lengthMm], 0) };
    case "boards":
      return bars(s.lengthMm, BOARD_LONG, s.across);
    case "ribs":
      return bars(s.lengthMm, RIB_LONG, s.across);
    case "links":
      return bars(s.lengthMm, LINK_LONG, true);
    case "grain":
    case "crackle":
      return lumps(s.lengthMm);
    case "mesh":
      return { width: s.lengthMm, height: s.lengthMm, cells: row(0, s.lengthMm, [0, s.lengthMm], 0) };
    case "plain":
      return null;
  }
}

/** Finer than this, a cell is no longer to be made out on a screen, px. */
const FINEST = 5;

/** Area of a polygon, by the shoelace formula. */
export const area = (p: readonly Point[]) =>
  Math.abs(
    p.reduce((sum, [x, y], i) => {
      const [nx, ny] = p[(i + 1) % p.length]!;
      return sum + x * ny - nx * y;
    }, 0),
  ) / 2;

/** The cells of one tile, whole, without what opens between them, and what is left of them within their rim. */
export function reliefCells(surface: SurfaceOf, shares: Shares, pxPerMm: number) {
  const tiling = tilingOf(surface);
  if (!tiling) return null;
  const small = Math.sqrt((tiling.width * tiling.height) / tiling.cells.length);
  const by = Math.max(pxPerMm, FINEST / Math.min(small, tiling.width, tiling.height));
  const cells = tiling.cells.map((c) => c.map(([x, y]) => [x * by, y * by] as const));
  // Of a mesh the wires stand out, and what is between them is the hole.
  const [gap, within] =
    surface.kind === "mesh" ? [shares.raised, shares.recess] : [shares.recess, shares.field];
  return {
    width: tiling.width * by,
    height: tiling.height * by,
    cells,
    outer: cells.map((c) => shrunk(c, 1 - gap)),
    // Light comes from the upper left: the face lies off towards the lower right as far as the cell allows.
    inner: cells.map((c) => shrunk(c, within, 1 - gap)),
  };
}

/** The tile as paths, wrapped so that it repeats without a seam. */
export function relief(surface: SurfaceOf, shares: Shares, pxPerMm: number): Tile {
  const found = reliefCells(surface, shares, pxPerMm);
  if (!found) return { width: 8, height: 8, ground: "field", over: [], rivets: "" };
  const { width, height, outer, inner, cells } = found;
  const wrapped = (list: Point[][]) =>
    list
      .flatMap((c) =>
        [0, -width].flatMap((dx) =>
          [0, -height].map((dy) => path(c.map(([x, y]) => [x + dx, y + dy] as const))),
        ),
      )
      .join("");
  const [ground, rim, face] =
    surface.kind === "mesh"
      ? (["raised", "field", "recess"] as const)
      : (["recess", "raised", "field"] as const);
  return {
    width,
    height,
    ground,
    over: [
      { where: rim, d: wrapped(outer) },
      { where: face, d: wrapped(inner) },
    ],
    rivets: surface.rivetMm ? rivets(cells[0]!, (surface.rivetMm * width) / surface.lengthMm) : "",
  };
}

/** Rivets along the edges of a panel, a little inside, as circles. */
function rivets(cell: readonly Point[], pitch: number) {
  const [[x0, y0], , [x1, y1]] = cell as unknown as [Point, Point, Point];
  const [inset, r] = [pitch * 0.35, Math.max(0.8, pitch * 0.14)];
  const dots: string[] = [];
  const circle = (x: number, y: number) =>
    dots.push(
      `M${(x - r).toFixed(1)} ${y.toFixed(1)}a${r.toFixed(1)} ${r.toFixed(1)} 0 1 0 ${(2 * r).toFixed(1)} 0a${r.toFixed(1)} ${r.toFixed(1)} 0 1 0 ${(-2 * r).toFixed(1)} 0`,
    );
  const across = Math.max(1, Math.floor((x1 - x0 - 2 * inset) / Math.max(pitch, 4)));
  const down = Math.max(1, Math.floor((y1 - y0 - 2 * inset) / Math.max(pitch, 4)));
  for (let i = 0; i <= across; i++)
    for (const y of [y0 + inset, y1 - inset]) circle(x0 + inset + (i * (x1 - x0 - 2 * inset)) / across, y);
  for (let i = 1; i < down; i++)
    for (const x of [x0 + inset, x1 - inset]) circle(x, y0 + inset + (i * (y1 - y0 - 2 * inset)) / down);
  return dots.join("");
}

/** How far of the way to its rim the face of a cell lies off its middle. */
const OFF = 0.55;

/**
 * A cell with so much of its area left; with `rim`, off its middle within what that leaves. What is square keeps the same distance all
 * round, so that the joints of long boards are as wide at their ends as along them; what is not shrinks towards its middle.
 */
function shrunk(cell: readonly Point[], share: number, rim?: number): Point[] {
  const xs = cell.map(([x]) => x),
    ys = cell.map(([, y]) => y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  if (isSquare(cell)) {
    const inset = insetOf(x1 - x0, y1 - y0, share);
    const off = rim === undefined ? 0 : (inset - insetOf(x1 - x0, y1 - y0, rim)) * OFF;
    return cell.map(
      ([x, y]) => [x + (x === x0 ? inset : -inset) + off, y + (y === y0 ? inset : -inset) + off] as const,
    );
  }
  const cx = xs.reduce((s, x) => s + x, 0) / cell.length;
  const cy = ys.reduce((s, y) => s + y, 0) / cell.length;
  const reach = Math.min(...[x1 - cx, cx - x0, y1 - cy, cy - y0]);
  const by = Math.sqrt(Math.max(0, share));
  const off = rim === undefined ? 0 : (Math.sqrt(Math.max(0, rim)) - by) * OFF * reach;
  return cell.map(([x, y]) => [cx + (x - cx) * by + off, cy + (y - cy) * by + off] as const);
}

const isSquare = (cell: readonly Point[]) =>
  cell.length === 4 && new Set(cell.map(([x]) => x)).size === 2 && new Set(cell.map(([, y]) => y)).size === 2;

/** The margin that leaves a share of a rectangle: (w - 2d)(h - 2d) = share · w · h. */
function insetOf(w: number, h: number, share: number) {
  const left = Math.max(0, share);
  return (w + h - Math.sqrt((w - h) ** 2 + 4 * left * w * h)) / 4;
}

const path = (p: readonly Point[]) => `M${p.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join("L")}Z`;
