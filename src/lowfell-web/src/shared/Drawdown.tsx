import type { Schema } from "../api/client";

/** A card half black, half white, with what is laid over it. */
export function Drawdown({
  over,
  clear,
  height = 54,
}: {
  over?: Schema["Drawdown"];
  clear?: boolean;
  height?: number;
}) {
  return (
    <svg
      viewBox="0 0 200 54"
      height={height}
      preserveAspectRatio="none"
      className="block w-full"
      aria-hidden="true"
    >
      <rect width="100" height="54" fill="#313131" />
      <rect x="100" width="100" height="54" fill="#eeeeee" />
      {!clear && over && (
        <>
          <rect x="14" y="9" width="86" height="36" fill={over.overBlack} />
          <rect x="100" y="9" width="86" height="36" fill={over.overWhite} />
        </>
      )}
      {clear && (
        <rect
          x="14"
          y="9"
          width="172"
          height="36"
          fill="none"
          stroke="#8a8a8a"
          strokeDasharray="4 3"
          vectorEffect="non-scaling-stroke"
        />
      )}
    </svg>
  );
}
