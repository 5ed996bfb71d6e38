import type { Schema } from "../../api/client";

/** A treatment at a glance: its layers from the bottom up, each in the colour the zone has once it is on. */
export function Strata({ of, className = "h-14 w-20" }: { of: Schema["Stratum"][]; className?: string }) {
  return (
    <svg
      viewBox="0 0 40 28"
      preserveAspectRatio="none"
      aria-hidden="true"
      className={`shrink-0 border border-line ${className}`}
    >
      {of.length === 0 && <path d="M0 28L40 0" stroke="var(--line)" strokeWidth="0.7" />}
      {of.map((s, i) => (
        <rect
          key={i}
          x="0"
          width="40"
          y={28 - (28 * (i + 1)) / of.length}
          height={28 / of.length + 0.1}
          fill={s.colour}
        />
      ))}
    </svg>
  );
}
