import type { Schema } from "../api/client";

type Zone = Schema["ZoneDto"];
/**
 * A layer as it is drawn; one that chips says how many layers lie below the lowest that it breaks, and one whose marks have places says
 * from where to where along the section they lie, px, and in which colour.
 */
type LayerReading = Omit<Schema["LayerReading"], "range"> & {
  breaksTo?: number | undefined;
  placed?: { at: readonly (readonly [number, number])[]; fill: string } | undefined;
};
export type Where = "raised" | "field" | "recess";

/** What of a zone is drawn; a surface of which nothing is known is plain. */
type Drawn = Pick<Zone, "relief" | "raised" | "recess"> & Partial<Pick<Zone, "surface">>;

export type Stratum = { id: string; runs: { d: string; fill: string }[]; outline: string };
export type SectionDrawing = {
  ground: string;
  strata: Stratum[];
  /** How many times thicker than life the films are drawn. */
  thicker: number;
};

/** How high a film comes at every sample, the same as the points of a path, and the samples at which it is chipped below. */
type Surface = { high: number[]; top: string[]; gaps: ReadonlySet<number> };

/** The shape of a film, and what it was drawn from. */
type Shape = Surface & { key: string; d: Record<Where, string>; outline: string };

/** What was drawn last of each zone: most of it is drawn again with the next step of a slider. */
const lately = new WeakMap<object, readonly Shape[]>();

type Samples = ReturnType<typeof profile>;

/** What a chip leaves. */
const AIR = "var(--ground)";

/** Px between samples of the open surface; every turn of the relief gets a sample of its own. */
const STEP = 12;

/** Px of the section for a mm along the surface. */
const PX_PER_MM = 24.5;

/** From joint to joint where the surface has no parts of its own, and the least and most that can be drawn. */
const PLAIN_MM = 4,
  LEAST_PX = 26,
  MOST_PX = 240;

/** The scale moves in steps of this ratio, so that a film that changes a little leaves those below it where they are. */
const SCALE_STEP = 1.05;

/** Tenths of a pixel; quicker than fixed digits, and as short. */
const tenth = (v: number) => Math.round(v * 10) / 10;
const depthOf: Record<Zone["relief"], number> = { smooth: 5, light: 20, deep: 46 };

/** Px from joint to joint: blocks, boards and panels at their true size. Slates are cut along their slope. */
function moduleOf(surface: Zone["surface"] | undefined) {
  const mm =
    !surface || surface.kind === "plain" || surface.kind === "grain"
      ? PLAIN_MM
      : surface.kind === "slates"
        ? surface.heightMm
        : surface.lengthMm;
  return Math.max(LEAST_PX, Math.min(MOST_PX, mm * PX_PER_MM));
}

/** How deep the surface lies along one of its parts, 0 (top) to 1 (bottom), where it is not cut square. */
const curves: Partial<Record<NonNullable<Zone["surface"]>["kind"], (along: number) => number>> = {
  slates: (along) => 0.55 * along,
  ribs: (along) => 0.5 - 0.5 * Math.cos(2 * Math.PI * along),
  mesh: (along) => (0.5 - 0.5 * Math.cos(2 * Math.PI * along)) ** 2,
};

/** Where to look: every step, and wherever the relief turns within its module. */
function places(width: number, module: number, turns: number[]): number[] {
  const found = new Set<number>();
  for (let x = 0; x <= width; x += STEP) found.add(x);
  found.add(width);
  for (let start = -module * 0.55; start <= width; start += module)
    for (const turn of turns) {
      const x = Math.round((start + turn) * 2) / 2;
      if (x > 0 && x < width) found.add(x);
    }
  return [...found].sort((a, b) => a - b);
}

/** Which position each sample of the cross-section belongs to, and how deep it lies, 0 (top) to 1 (bottom). */
export function profile(zone: Drawn, width: number) {
  const module = moduleOf(zone.surface);
  const joint = Math.max(Math.min(6, module / 5), zone.recess * module);
  const edge = Math.max(Math.min(4, module / 8), (zone.raised * module) / 2);
  const slope = Math.min(zone.relief === "smooth" ? 4 : 5, module / 6);
  const curve = zone.surface && curves[zone.surface.kind];
  const grain = zone.surface?.kind === "grain" || zone.surface?.kind === "crackle" ? 1.8 : 1;
  const samples: { x: number; deep: number; where: Where; rough: number }[] = [];
  for (const x of places(width, module, [
    0,
    joint,
    joint + slope,
    joint + slope + edge,
    module - slope - edge,
    module - slope,
  ])) {
    const at = (x + module * 0.55) % module;
    const rough = Math.sin(x * 0.21) * 1.2 + Math.sin(x * 0.057) * 1.6;
    let deep = 0;
    if (at < joint) deep = 1;
    else if (at < joint + slope) deep = 1 - (at - joint) / slope;
    else if (at > module - slope) deep = (at - module + slope) / slope;
    if (curve && deep < 1) deep = Math.max(deep, curve((at - joint) / Math.max(1, module - joint)));
    const where: Where =
      at < joint + slope / 2 || at > module - slope / 2
        ? "recess"
        : at < joint + slope + edge || at > module - slope - edge
          ? "raised"
          : "field";
    samples.push({ x, deep, where, rough: zone.relief === "smooth" ? rough * 0.25 : rough * grain });
  }
  return samples;
}

/**
 * A section through the relief with every film on it, in true proportion to each other.
 * A pure function from data to paths, so that it can be drawn while a slider moves.
 */
export function section(
  zone: Drawn,
  layers: readonly LayerReading[],
  width: number,
  height: number,
): SectionDrawing {
  const samples = profile(zone, width);
  const depth = depthOf[zone.relief];
  const sums = { raised: 0, field: 0, recess: 0 };
  for (const l of layers)
    for (const w of ["raised", "field", "recess"] as const) sums[w] += Math.max(0, l.filmUm[w]);
  const thickest = Math.max(sums.raised, sums.field, 1);
  const inJoint = Math.max(sums.recess, 1);
  const room = height - depth - 58;
  // Films must fit above the faces, and must not overfill the joints by more than the head room.
  const fits = Math.min(room / thickest, (room + depth) / inJoint, 1.1);
  const pxPerUm = SCALE_STEP ** Math.floor(Math.log(fits) / Math.log(SCALE_STEP));
  const top = height - depth - 26;
  const floor = samples.map((s) => top + s.deep * depth + s.rough * (1 - s.deep));
  const bare: Surface = {
    high: samples.map(() => 0),
    gaps: new Set<number>(),
    top: samples.map((s, i) => `${s.x} ${tenth(floor[i]!)}`),
  };
  const before = lately.get(zone) ?? [];
  const shapes: Shape[] = [];
  // A film looks as it did as long as it and all below it are as thick as they were; a slider changes those from its layer up.
  const of = zone.surface;
  let key = `${zone.relief} ${zone.raised} ${zone.recess} ${of?.kind} ${of?.lengthMm} ${of?.heightMm} ${width} ${height} ${pxPerUm}`;
  let low = bare;
  let gaps = bare.gaps;
  const strata: Stratum[] = layers.map((layer, n) => {
    const { raised, field, recess } = layer.filmUm;
    const to = layer.breaksTo;
    const { placed } = layer;
    if (placed) key += ` placed ${placed.at.join(" ")}`;
    key +=
      to === undefined ? ` ${raised} ${field} ${recess}` : ` ${to} ${Object.values(layer.cover).join(" ")}`;
    const was = before[n];
    const high = () =>
      to === undefined
        ? laid(samples, low, placed ? whole(layer) : layer.filmUm, pxPerUm, placed?.at)
        : low.high.map((h, i) => (gaps.has(i) ? (shapes[to - 1] ?? bare).high[i]! : h));
    if (to !== undefined) gaps = chipped(samples, layer.cover);
    const shape = was?.key === key ? was : { key, gaps, ...film(samples, floor, low, high()) };
    shapes.push(shape);
    low = shape;
    return {
      id: layer.id,
      runs: (["recess", "field", "raised"] as const).map((w) => ({
        d: shape.d[w],
        fill: to !== undefined ? AIR : (placed?.fill ?? layer[w]),
      })),
      outline: shape.outline,
    };
  });
  lately.set(zone, shapes);
  const ground = `M0 ${height}L${bare.top.join("L")}L${width} ${height}Z`;
  return { ground, strata, thicker: (pxPerUm * 1000) / PX_PER_MM };
}

/** Liquid does not stop at a line: neighbouring samples share a little, the more the nearer they lie. A broken edge stays sharp. */
function smooth(samples: readonly { x: number }[], values: number[], gaps: ReadonlySet<number>) {
  for (let i = 1; i < values.length - 1; i++) {
    if (gaps.size > 0 && (gaps.has(i) || gaps.has(i - 1) || gaps.has(i + 1))) continue;
    const left = samples[i]!.x - samples[i - 1]!.x;
    const right = samples[i + 1]!.x - samples[i]!.x;
    const between = (values[i - 1]! * right + values[i + 1]! * left) / (left + right);
    values[i] = values[i]! * 0.5 + between * 0.5;
  }
}

/** How high the surface comes with a film on it. */
function laid(
  samples: Samples,
  low: Surface,
  filmUm: LayerReading["filmUm"],
  pxPerUm: number,
  only?: readonly (readonly [number, number])[],
) {
  const lies = (x: number) => !only || only.some(([from, to]) => x >= from && x <= to);
  const high = samples.map((s, i) => Math.max(0, low.high[i]! + (lies(s.x) ? filmUm[s.where] * pxPerUm : 0)));
  smooth(samples, high, low.gaps);
  return high;
}

/** The film inside a mark: what is laid on the mean lies on what is covered alone. */
function whole({ filmUm, cover }: LayerReading): LayerReading["filmUm"] {
  const inside = (w: Where) => (cover[w] > 0 ? filmUm[w] / cover[w] : 0);
  return { raised: inside("raised"), field: inside("field"), recess: inside("recess") };
}

/** Where chips break through: in places, as many as their share of each position asks for. */
function chipped(samples: Samples, share: LayerReading["cover"]) {
  // Each position fills its own measure as it goes along; where it is full there is a chip.
  const full: Record<Where, number> = { raised: 0.5, field: 0.5, recess: 0.5 };
  const gaps = new Set<number>();
  samples.forEach((s, i) => {
    full[s.where] += share[s.where];
    if (full[s.where] < 1) return;
    full[s.where] -= 1;
    gaps.add(i);
  });
  return gaps;
}

/**
 * What lies between the surface and the next: one path for each position, however often that comes along the section: a slider redraws
 * three shapes a layer, not twenty.
 */
function film(
  samples: Samples,
  floor: readonly number[],
  low: Surface,
  high: number[],
): Omit<Shape, "key" | "gaps"> {
  const d: Record<Where, string> = { raised: "", field: "", recess: "" };
  const top = samples.map((s, i) => `${s.x} ${tenth(floor[i]! - high[i]!)}`);
  let start = 0;
  for (let i = 1; i <= samples.length; i++) {
    if (i < samples.length && samples[i]!.where === samples[start]!.where) continue;
    const end = Math.min(i, samples.length - 1);
    let path = `M${top[start]}`;
    for (let k = start + 1; k <= end; k++) path += `L${top[k]}`;
    for (let k = end; k >= start; k--) path += `L${low.top[k]}`;
    d[samples[start]!.where] += `${path}Z`;
    start = i;
  }
  return { high, top, d, outline: `M${top.join("L")}` };
}
