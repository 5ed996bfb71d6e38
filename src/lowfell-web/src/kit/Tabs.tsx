import { Tabs as Radix } from "radix-ui";
import type { ReactNode } from "react";

/** Views of one thing, one at a time. */
export function Tabs<T extends string>(props: {
  label: string;
  value: T;
  tabs: readonly { value: T; text: string; body?: () => ReactNode }[];
  onChange: (value: T) => void;
  className?: string;
}) {
  return (
    <Radix.Root value={props.value} onValueChange={(v) => props.onChange(v as T)} className={props.className}>
      <Radix.List aria-label={props.label} className="no-print mb-2.5 flex border-b border-line">
        {props.tabs.map((t) => (
          <Radix.Trigger
            key={t.value}
            value={t.value}
            className="-mb-px border-b-2 border-transparent px-2.5 py-1.5 text-xs whitespace-nowrap text-soft data-[state=active]:border-tide data-[state=active]:font-semibold data-[state=active]:text-ink"
          >
            {t.text}
          </Radix.Trigger>
        ))}
      </Radix.List>
      {props.tabs.map((t) => (
        <Radix.Content key={t.value} value={t.value} tabIndex={-1} className="min-h-0 flex-1">
          {t.value === props.value && t.body?.()}
        </Radix.Content>
      ))}
    </Radix.Root>
  );
}
