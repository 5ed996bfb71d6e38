import { useId } from "react";
import { blot } from "./blot";
import type { Piece, Zone } from "./types";

const MOST_LINES = 60;

/** The face of a piece, unrolled and to scale, with the marks of its plan. */
export function FaceDrawing({ zone, piece, className }: { zone: Zone; piece: Piece; className?: string }) {
  const clip = useId();
  const { face } = zone;
  const thin = Math.max(face.widthMm, face.heightMm) / 260;
  return (
    <svg
      viewBox={`0 0 ${face.widthMm} ${face.heightMm}`}
      role="img"
      aria-label={`${piece.label}: ${piece.words}`}
      className={className}
    >
      <clipPath id={clip}>
        <rect width={face.widthMm} height={face.heightMm} />
      </clipPath>
      <rect
        width={face.widthMm}
        height={face.heightMm}
        fill={piece.marks.length > 0 ? zone.ground : piece.colour}
      />
      <g clipPath={`url(#${clip})`}>
        <Joints zone={zone} thin={thin} />
        {face.anchors.map((a) => (
          <circle
            key={a.name}
            cx={a.x}
            cy={a.y}
            r={thin * 8}
            fill="none"
            stroke="#000"
            strokeOpacity={0.6}
            strokeWidth={thin * 2}
          />
        ))}
        {piece.marks.map((m) => (
          <path
            key={`${m.x} ${m.y}`}
            d={blot(m.x, m.y, m.sizeMm)}
            fill={piece.colour}
            fillOpacity={Math.min(1, 0.55 + 0.4 * m.heaviness)}
            stroke="#000"
            strokeOpacity={0.45}
            strokeWidth={thin}
          />
        ))}
      </g>
      <rect
        width={face.widthMm}
        height={face.heightMm}
        fill="none"
        className="stroke-line"
        strokeWidth={thin * 1.5}
      />
    </svg>
  );
}

/** Joints of the surface at their true size, faint: something to go by with the brush. */
function Joints({ zone, thin }: { zone: Zone; thin: number }) {
  const { face, surface } = zone;
  const [w, h] = [face.widthMm, face.heightMm];
  const blocks = surface.kind === "courses" || surface.kind === "slates" || surface.kind === "panels";
  const step = blocks ? surface.heightMm : surface.kind === "boards" ? surface.lengthMm : 0;
  if (step <= 0 || step < h / MOST_LINES) return null;
  const rows = Array.from({ length: Math.ceil(h / step) }, (_, i) => i * step);
  if (surface.kind === "boards" && surface.across)
    return (
      <path
        d={Array.from({ length: Math.ceil(w / step) }, (_, i) => `M${i * step} 0V${h}`).join("")}
        stroke="#000"
        strokeOpacity={0.22}
        strokeWidth={thin}
      />
    );
  const uprights =
    blocks && surface.lengthMm > w / MOST_LINES
      ? rows.flatMap((y, r) =>
          Array.from({ length: Math.ceil(w / surface.lengthMm) + 1 }, (_, i) => {
            const x = (i + (surface.kind !== "panels" && r % 2 ? 0.5 : 0)) * surface.lengthMm;
            return `M${x} ${y}v${step}`;
          }),
        )
      : [];
  return (
    <path
      d={[...rows.slice(1).map((y) => `M0 ${y}H${w}`), ...uprights].join("")}
      stroke="#000"
      strokeOpacity={0.22}
      strokeWidth={thin}
      fill="none"
    />
  );
}
