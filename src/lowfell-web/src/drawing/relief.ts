// A tile of relief whose areas are the zone's own shares: every cell of a tiling shrinks towards its middle, so that what
// opens between cells is the recess, and a smaller cell on it, shifted away from the light, leaves a raised rim.

export type Texture = "bricks" | "planks" | "slates" | "crust" | "panels";
export type Shares = { raised: number; field: number; recess: number };
export type Point = readonly [number, number];
export type Tile = { width: number; height: number; raised: string; field: string };

const row = (y: number, h: number, xs: readonly number[], shift: number): Point[][] =>
  xs.slice(1).map((x, i) => [
    [xs[i]! + shift, y],
    [x + shift, y],
    [x + shift, y + h],
    [xs[i]! + shift, y + h],
  ]);

// Each list of cells covers its tile once; cells that cross an edge come back in on the other side.
const cells: Record<Texture, { width: number; height: number; cells: Point[][] }> = {
  bricks: {
    width: 48,
    height: 28,
    cells: [...row(0, 14, [0, 24, 48], 0), ...row(14, 14, [0, 24, 48], 12)],
  },
  planks: {
    width: 160,
    height: 26,
    cells: [...row(0, 13, [0, 96, 160], 0), ...row(13, 13, [0, 70, 160], 40)],
  },
  slates: {
    width: 36,
    height: 36,
    cells: [...row(0, 18, [0, 18, 36], 0), ...row(18, 18, [0, 18, 36], 9)],
  },
  panels: { width: 130, height: 76, cells: row(0, 76, [0, 130], 0) },
  crust: {
    width: 60,
    height: 48,
    cells: [
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
    ],
  },
};

/** Area of a polygon, by the shoelace formula. */
export const area = (p: readonly Point[]) =>
  Math.abs(
    p.reduce((sum, [x, y], i) => {
      const [nx, ny] = p[(i + 1) % p.length]!;
      return sum + x * ny - nx * y;
    }, 0),
  ) / 2;

/** The cells of one tile, whole, raised and field, before they are repeated. */
export function reliefCells(texture: Texture, shares: Shares) {
  const tiling = cells[texture];
  const top = Math.sqrt(Math.max(0, 1 - shares.recess));
  const face = Math.sqrt(Math.max(0, shares.field));
  return {
    ...tiling,
    raised: tiling.cells.map((c) => shrunk(c, top, 0)),
    // Light comes from the upper left: the field lies off towards the lower right as far as the cell allows.
    field: tiling.cells.map((c) => shrunk(c, face, (top - face) * 0.55)),
  };
}

/** The tile as paths, wrapped so that it repeats without a seam. */
export function relief(texture: Texture, shares: Shares): Tile {
  const { width, height, raised, field } = reliefCells(texture, shares);
  const wrapped = (list: Point[][]) =>
    list.flatMap((c) => [0, -width].map((dx) => path(c.map(([x, y]) => [x + dx, y] as const)))).join("");
  return { width, height, raised: wrapped(raised), field: wrapped(field) };
}

function shrunk(cell: readonly Point[], by: number, off: number): Point[] {
  const cx = cell.reduce((s, [x]) => s + x, 0) / cell.length;
  const cy = cell.reduce((s, [, y]) => s + y, 0) / cell.length;
  const reach = Math.min(
    Math.max(...cell.map(([x]) => Math.abs(x - cx))),
    Math.max(...cell.map(([, y]) => Math.abs(y - cy))),
  );
  return cell.map(([x, y]) => [cx + (x - cx) * by + off * reach, cy + (y - cy) * by + off * reach] as const);
}

const path = (p: readonly Point[]) => `M${p.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join("L")}Z`;
