import { scaleStep, strata } from "./jar";

export type InJar = { name: string; ml: number; colour: string; thinner: boolean };

const WIDTH = 210;
const HEIGHT = 236;
const GLASS = { x: 8, y: 18, width: 96, height: 210 };

/** A jar with its parts as strata, a scale on the glass and each part named beside it. */
export function Jar({ parts, fullMl, title }: { parts: readonly InJar[]; fullMl: number; title: string }) {
  const drawn = strata(
    parts.map((p) => p.ml),
    fullMl,
    GLASS.height,
  );
  const step = scaleStep(fullMl);
  const ticks = Array.from({ length: Math.floor(fullMl / step) }, (_, i) => (i + 1) * step);
  const labels = spread(drawn.map((s) => GLASS.y + s.y + s.height / 2));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={title}
      className="block h-[236px] w-[210px] shrink-0"
    >
      <defs>
        <pattern id="jar-thinner" width="8" height="6" patternUnits="userSpaceOnUse">
          <path d="M0 3q2-2 4 0t4 0" fill="none" stroke="#20262a" strokeOpacity="0.45" />
        </pattern>
      </defs>
      <rect {...GLASS} fill="var(--ground)" />
      {parts.map((p, i) => {
        const s = drawn[i]!;
        const box = { x: GLASS.x, y: GLASS.y + s.y, width: GLASS.width, height: Math.max(0.5, s.height) };
        return (
          <g key={p.name}>
            <rect {...box} fill={p.thinner ? "#dfe3e4" : p.colour} />
            {p.thinner && <rect {...box} fill="url(#jar-thinner)" />}
            <path
              d={`M${GLASS.x + GLASS.width + 2} ${box.y + box.height / 2}L${GLASS.x + GLASS.width + 14} ${labels[i]!}`}
              stroke="var(--line)"
              fill="none"
            />
            <text x={GLASS.x + GLASS.width + 17} y={labels[i]! + 4} fontSize="11" fill="var(--ink)">
              {p.name.length > 16 ? `${p.name.slice(0, 15)}…` : p.name}
            </text>
          </g>
        );
      })}
      {ticks.map((t) => {
        const y = GLASS.y + GLASS.height - (t / fullMl) * GLASS.height;
        return (
          <g key={t}>
            <path d={`M${GLASS.x} ${y}h9`} stroke="#fff" strokeWidth="3" />
            <path d={`M${GLASS.x} ${y}h9`} stroke="#20262a" />
          </g>
        );
      })}
      <text x={GLASS.x} y="12" fontSize="11" fill="var(--soft)">
        {fullMl} ml jar, marks {step} ml
      </text>
      <path
        d={`M${GLASS.x} ${GLASS.y}v${GLASS.height - 8}q0 8 8 8h${GLASS.width - 16}q8 0 8-8v-${GLASS.height - 8}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="2.5"
      />
    </svg>
  );
}

/** Labels keep their order and never lie over one another. */
function spread(wanted: readonly number[]): number[] {
  const apart = 15;
  const placed: number[] = [];
  // The first part lies lowest, so that labels are placed upwards.
  let last = HEIGHT + apart;
  for (const y of wanted) {
    last = Math.min(y, last - apart);
    placed.push(last);
  }
  const over = Math.max(0, 10 - (placed.at(-1) ?? 10));
  return placed.map((y) => y + over);
}
