import { Select as Radix } from "radix-ui";
import { useId, type RefCallback } from "react";
import type { Option } from "./Combobox";
import { box, Frame, type Shared } from "./Frame";

// Radix keeps the empty word for itself.
const NONE = "\u2205";

/** One of a few, all seen at once. */
export function Select<T extends string>(
  props: Shared & {
    value: T;
    options: readonly Option<T>[];
    onChange: (value: T) => void;
    disabled?: boolean;
    takesFocus?: RefCallback<HTMLElement>;
  },
) {
  const id = useId();
  const { takesFocus } = props;
  const nonce = document.querySelector<HTMLMetaElement>("meta[name=lowfell-nonce]")?.content;
  return (
    <Frame {...props} id={id}>
      <Radix.Root
        value={props.value || NONE}
        disabled={props.disabled}
        onValueChange={(v) => props.onChange((v === NONE ? "" : v) as T)}
      >
        <Radix.Trigger
          id={id}
          ref={takesFocus}
          aria-invalid={props.fault ? true : undefined}
          aria-describedby={props.fault ? `${id}-fault` : props.hint ? `${id}-hint` : undefined}
          className={`${box} flex items-center justify-between gap-2 text-left ${props.fault ? "border-signal" : "border-line"}`}
        >
          <span className="truncate">
            <Radix.Value />
          </span>
          <Radix.Icon className="text-soft">▾</Radix.Icon>
        </Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            position="popper"
            sideOffset={2}
            collisionPadding={8}
            className="z-50 max-h-[var(--radix-select-content-available-height)] min-w-[var(--radix-select-trigger-width)] rounded-[4px] border border-line bg-card p-1 text-sm text-ink shadow-lg"
          >
            <Radix.Viewport nonce={nonce}>
              {props.options.map((o) => (
                <Radix.Item
                  key={o.value || NONE}
                  value={o.value || NONE}
                  className="cursor-default rounded-[2px] px-2 py-1 outline-none data-[highlighted]:bg-tide data-[highlighted]:text-on-tide"
                >
                  <Radix.ItemText>{o.text}</Radix.ItemText>
                </Radix.Item>
              ))}
            </Radix.Viewport>
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </Frame>
  );
}
