import type { ReactNode } from "react";

/** Something went wrong: what, where, and what to do. Nothing is drawn where nothing is said. */
export function Alert({
  title,
  children,
  className = "",
}: {
  title?: string;
  children?: ReactNode;
  className?: string;
}) {
  if (!title && !children) return null;
  return (
    <div
      role="alert"
      className={`border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs ${className}`}
    >
      {title && (
        <b>
          <span aria-hidden="true">■ </span>
          {title}{" "}
        </b>
      )}
      {children}
    </div>
  );
}
