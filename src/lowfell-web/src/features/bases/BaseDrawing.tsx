import { useId, type ReactNode } from "react";
import { blades, stone } from "./figures";
import { halfOf, type Base, type Element, type Shape, type Tray } from "./types";

/** One base from above, in mm: its grounds one over the other, and what lies on it. */
export function BaseDrawing(props: {
  tray: Tray;
  base: Base;
  elements?: readonly Element[];
  /** What the patterns of textures are called; without, they are filled plainly. */
  fills?: string;
  pxPerMm?: number;
  fromTable?: boolean;
  className?: string;
  widthMm?: number;
  children?: ReactNode;
  label: string;
}) {
  const { tray, base } = props;
  const clip = useId();
  const shape = tray.wish.shape!;
  const [hx, hy] = halfOf(shape);
  const edge = 1.2;
  const own = useId();
  const fill = (i: number) =>
    props.fills ? `url(#${own}-${i})` : tray.textures[i]![props.fromTable ? "fromTable" : "near"].field;
  const last = tray.textures.length - 1;
  return (
    <svg
      viewBox={`${-hx - edge} ${-hy - edge} ${2 * (hx + edge)} ${2 * (hy + edge)}`}
      className={props.className}
      {...(props.children ? { role: "group" } : { role: "img" })}
      {...(props.widthMm ? { width: `${2 * (hx + edge)}mm`, height: `${2 * (hy + edge)}mm` } : {})}
      aria-label={props.label}
    >
      {/* The same surface, taken from elsewhere and turned for every base. */}
      {props.fills &&
        tray.textures.map((_, i) => (
          <pattern
            key={i}
            id={`${own}-${i}`}
            href={`#${props.fills}-${i}`}
            patternTransform={`rotate(${turnOf(base.pieceId)}) translate(${turnOf(base.pieceId) / 20} ${i * 3}) scale(${1 / props.pxPerMm!})`}
          />
        ))}
      <clipPath id={clip}>
        <Outline shape={shape} />
      </clipPath>
      <Outline shape={shape} by={edge * 0.8} fill={tray.rim} />
      <g clipPath={`url(#${clip})`}>
        <Outline shape={shape} fill={fill(last)} />
        {base.textures
          .slice(0, last)
          .map((d, i) => ({ d, i }))
          .reverse()
          .map(({ d, i }) => d && <path key={i} d={d} fill={fill(i)} fillRule="evenodd" />)}
      </g>
      {(props.elements ?? base.elements).map((e, i) => (
        <Thing key={i} element={e} seed={i} colour={colourOf(tray, e)} />
      ))}
      {props.children}
    </svg>
  );
}

/** A turn of its own for every base, degrees. */
const turnOf = (id: string) => parseInt(id.slice(-4), 16) % 360;

export const colourOf = (tray: Tray, e: Element) =>
  tray.counts.find((c) => c.kind === e.kind)?.colour ?? (e.kind === "rock" ? "#85858a" : "#9a8b52");

/** The outline of a base, larger or smaller by so much. */
export function Outline({
  shape,
  by = 0,
  ...rest
}: {
  shape: Shape;
  by?: number;
  fill?: string;
  stroke?: string;
  strokeWidth?: number;
  strokeDasharray?: string;
  className?: string;
}) {
  const [hx, hy] = halfOf(shape);
  return shape.outline === "round" || shape.outline === "oval" ? (
    <ellipse rx={hx + by} ry={hy + by} {...rest} />
  ) : (
    <rect x={-hx - by} y={-hy - by} width={2 * (hx + by)} height={2 * (hy + by)} {...rest} />
  );
}

/** A rock, a tuft, a reed or a plank. */
export function Thing({ element: e, seed, colour }: { element: Element; seed: number; colour: string }) {
  if (e.kind === "rock" || e.kind === "cork")
    return <path d={stone(e)} fill={colour} stroke="#000" strokeOpacity={0.55} strokeWidth={0.18} />;
  if (e.kind === "plank")
    return (
      <rect
        x={e.x - e.lengthMm / 2 - e.radiusMm}
        y={e.y - e.radiusMm}
        width={e.lengthMm + 2 * e.radiusMm}
        height={2 * e.radiusMm}
        transform={`rotate(${e.turn} ${e.x} ${e.y})`}
        fill={colour}
        stroke="#000"
        strokeOpacity={0.5}
        strokeWidth={0.15}
      />
    );
  return (
    <>
      <path
        d={blades(e, seed)}
        stroke="#000"
        strokeOpacity={0.5}
        strokeWidth={0.2 + 0.2 * e.radiusMm}
        strokeLinecap="round"
      />
      <path d={blades(e, seed)} stroke={colour} strokeWidth={0.1 + 0.15 * e.radiusMm} strokeLinecap="round" />
    </>
  );
}
