import type { Schema } from "../api/client";

type Zone = Schema["ZoneDto"];
type LayerReading = Schema["LayerReading"];
export type Where = "raised" | "field" | "recess";

export type Stratum = { id: string; runs: { d: string; fill: string }[]; outline: string };
export type SectionDrawing = { ground: string; strata: Stratum[]; thicker: number };

const STEP = 2;
const depthOf: Record<Zone["relief"], number> = { smooth: 5, light: 20, deep: 46 };

/** Which position each sample of the cross-section belongs to, and how deep it lies, 0 (top) to 1 (bottom). */
export function profile(zone: Pick<Zone, "relief" | "raised" | "recess">, width: number) {
  const module = 98;
  const joint = Math.max(6, zone.recess * module);
  const edge = Math.max(4, (zone.raised * module) / 2);
  const slope = zone.relief === "smooth" ? 4 : 5;
  const samples: { x: number; deep: number; where: Where; rough: number }[] = [];
  for (let x = 0; x <= width; x += STEP) {
    const at = (x + module * 0.55) % module;
    const rough = Math.sin(x * 0.21) * 1.2 + Math.sin(x * 0.057) * 1.6;
    let deep = 0;
    if (at < joint) deep = 1;
    else if (at < joint + slope) deep = 1 - (at - joint) / slope;
    else if (at > module - slope) deep = (at - module + slope) / slope;
    const where: Where =
      deep > 0.5 ? "recess" : at < joint + slope + edge || at > module - slope - edge ? "raised" : "field";
    samples.push({ x, deep, where, rough: zone.relief === "smooth" ? rough * 0.25 : rough });
  }
  return samples;
}

/**
 * A section through the relief with every film on it, in true proportion to each other.
 * A pure function from data to paths, so that it can be drawn while a slider moves.
 */
export function section(
  zone: Pick<Zone, "relief" | "raised" | "recess">,
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
  const pxPerUm = Math.min(room / thickest, (room + depth) / inJoint, 1.1);
  const top = height - depth - 26;
  const floor = samples.map((s) => top + s.deep * depth + s.rough * (1 - s.deep));
  const offset = samples.map(() => 0);
  const strata: Stratum[] = layers.map((layer) => {
    const low = [...offset];
    samples.forEach((s, i) => {
      const film = layer.filmUm[s.where];
      offset[i] = Math.max(0, offset[i]! + film * pxPerUm);
    });
    smooth(offset);
    return { id: layer.id, ...runs(samples, floor, low, offset, layer) };
  });
  const ground = `M0 ${height}L${samples.map((s, i) => `${s.x} ${floor[i]!.toFixed(1)}`).join("L")}L${width} ${height}Z`;
  // The drawing shows about 4 mm of joint-to-joint distance across one module of 98 px.
  return { ground, strata, thicker: (pxPerUm * 1000) / (98 / 4) };
}

/** Liquid does not stop at a line: neighbouring samples share a little. */
function smooth(values: number[]) {
  for (let i = 1; i < values.length - 1; i++)
    values[i] = values[i]! * 0.5 + (values[i - 1]! + values[i + 1]!) * 0.25;
}

function runs(
  samples: ReturnType<typeof profile>,
  floor: number[],
  low: number[],
  high: number[],
  layer: LayerReading,
): Pick<Stratum, "runs" | "outline"> {
  const pieces: { d: string; fill: string }[] = [];
  let start = 0;
  for (let i = 1; i <= samples.length; i++) {
    if (i < samples.length && samples[i]!.where === samples[start]!.where) continue;
    const end = Math.min(i, samples.length - 1);
    const up: string[] = [];
    const down: string[] = [];
    for (let k = start; k <= end; k++) {
      up.push(`${samples[k]!.x} ${(floor[k]! - high[k]!).toFixed(1)}`);
      down.unshift(`${samples[k]!.x} ${(floor[k]! - low[k]!).toFixed(1)}`);
    }
    pieces.push({ d: `M${up.join("L")}L${down.join("L")}Z`, fill: layer[samples[start]!.where] });
    start = i;
  }
  const outline = `M${samples.map((s, i) => `${s.x} ${(floor[i]! - high[i]!).toFixed(1)}`).join("L")}`;
  return { runs: pieces, outline };
}
