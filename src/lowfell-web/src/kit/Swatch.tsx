/** A colour on neutral ground, named for those who cannot see it. */
export function Swatch({
  colour,
  name,
  className = "",
}: {
  colour: string;
  name: string;
  className?: string;
}) {
  return (
    <svg
      role="img"
      aria-label={`${name} ${colour}`}
      className={`block shrink-0 ${className}`}
      preserveAspectRatio="none"
      viewBox="0 0 10 10"
    >
      <title>{`${name} ${colour}`}</title>
      <rect width="10" height="10" fill={colour} />
    </svg>
  );
}
