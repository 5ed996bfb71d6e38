import { useId, type InputHTMLAttributes, type ReactNode } from "react";

const box =
  "w-full rounded-[3px] border bg-card px-2 py-1 text-sm text-ink min-h-[30px] placeholder:text-soft";

type Shared = { label: string; fault?: string; hint?: ReactNode; hideLabel?: boolean };

function Frame({
  id,
  label,
  fault,
  hint,
  hideLabel,
  children,
}: Shared & { id: string; children: ReactNode }) {
  return (
    <div>
      <label htmlFor={id} className={hideLabel ? "sr-only" : "mb-0.5 block text-xs text-soft"}>
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

export function TextField({
  label,
  fault,
  hint,
  hideLabel,
  className = "",
  ...rest
}: Shared & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  return (
    <Frame id={id} label={label} fault={fault} hint={hint} hideLabel={hideLabel}>
      <input
        id={id}
        autoComplete="off"
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : hint ? `${id}-hint` : undefined}
        className={`${box} ${fault ? "border-signal" : "border-line"} ${className}`}
        {...rest}
      />
    </Frame>
  );
}

export function Choice<T extends string>({
  label,
  fault,
  hint,
  hideLabel,
  value,
  options,
  onChange,
  disabled,
}: Shared & {
  value: T;
  options: readonly (T | { value: T; text: string; group?: string })[];
  onChange: (value: T) => void;
  disabled?: boolean;
}) {
  const id = useId();
  const items = options.map((o) =>
    typeof o === "string" ? { value: o, text: o || "—", group: undefined } : o,
  );
  const groups = [...new Set(items.map((i) => i.group))];
  const list = (group: string | undefined) =>
    items
      .filter((i) => i.group === group)
      .map((i) => (
        <option key={i.value} value={i.value}>
          {i.text}
        </option>
      ));
  return (
    <Frame id={id} label={label} fault={fault} hint={hint} hideLabel={hideLabel}>
      <select
        id={id}
        value={value}
        disabled={disabled}
        aria-invalid={fault ? true : undefined}
        onChange={(e) => onChange(e.target.value as T)}
        className={`${box} ${fault ? "border-signal" : "border-line"}`}
      >
        {groups.map((g) =>
          g ? (
            <optgroup key={g} label={g}>
              {list(g)}
            </optgroup>
          ) : (
            list(undefined)
          ),
        )}
      </select>
    </Frame>
  );
}
