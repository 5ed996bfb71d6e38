import type { ReactNode } from "react";

export const box =
  "w-full rounded-[3px] border bg-card px-2 py-1 text-sm text-ink min-h-[30px] placeholder:text-soft";

export type Shared = {
  label: string;
  fault?: string;
  hint?: ReactNode;
  hideLabel?: boolean;
  beside?: boolean;
};

/** A field with its label above, or beside it, and below it what is wrong or what to know. */
export function Frame({
  id,
  label,
  fault,
  hint,
  hideLabel,
  beside,
  children,
}: Shared & { id: string; children: ReactNode }) {
  return (
    <div className={beside ? "flex items-center gap-1.5" : undefined}>
      <label
        htmlFor={id}
        className={
          hideLabel ? "sr-only" : beside ? "text-xs whitespace-nowrap" : "mb-0.5 block text-xs text-soft"
        }
      >
        {label}
      </label>
      {children}
      {fault && (
        <p id={`${id}-fault`} className="mt-0.5 text-xs font-medium text-signal">
          <span aria-hidden="true">▲ </span>
          {fault}
        </p>
      )}
      {hint && !fault && (
        <p id={`${id}-hint`} className="mt-0.5 text-xs text-soft">
          {hint}
        </p>
      )}
    </div>
  );
}
