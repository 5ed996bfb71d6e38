/** Dark and light modules, with the quiet edge around them, as a camera reads them: always dark on white, whatever the bench. */
export function Square({ modules, says }: { modules: readonly string[]; says: string }) {
  const size = modules.length;
  const dark = modules.flatMap((row, y) =>
    [...row].flatMap((m, x) => (m === "1" ? [`M${x} ${y}h1v1h-1z`] : [])),
  );
  return (
    <svg
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label={says}
      shapeRendering="crispEdges"
      className="w-full max-w-[260px]"
    >
      <rect width={size} height={size} fill="#ffffff" />
      <path d={dark.join("")} fill="#000000" />
    </svg>
  );
}
