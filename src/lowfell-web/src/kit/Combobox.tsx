import { Popover } from "radix-ui";
import {
  useId,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type ReactNode,
  type RefCallback,
} from "react";
import { box, Frame, type Shared } from "./Frame";
import { find, fit } from "./find";

export type Option<T extends string> = {
  value: T;
  text: string;
  group?: string;
  /** How it looks in the list; its text where left out. */
  row?: ReactNode;
};

/** More rows than this nobody reads: typing on narrows them down. */
const MOST_ROWS = 60;

/**
 * One of many, found by typing. The field is a text box all the time, so that what is typed is never lost and never a shortcut;
 * the list opens with the first letter, arrow or click.
 */
export function Combobox<T extends string>(
  props: Shared & {
    value: T;
    options: readonly Option<T>[];
    onChange: (value: T) => void;
    disabled?: boolean;
    placeholder?: string;
    takesFocus?: RefCallback<HTMLElement>;
  },
) {
  const { value, options, onChange, label, takesFocus } = props;
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const [picked, setPicked] = useState(0);
  // Which row is marked; null leaves it to what is typed.
  const [at, setAt] = useState<number | null>(0);
  const input = useRef<HTMLInputElement>(null);
  const chosen = options.find((o) => o.value === value);
  const found = useMemo(() => {
    const groups = [...new Set(options.map((o) => o.group))];
    return find(options, (o) => o.text, typed ?? "").sort(
      (a, b) => groups.indexOf(a.group) - groups.indexOf(b.group),
    );
  }, [options, typed]);
  const shown = found.slice(0, MOST_ROWS);
  // What is called just that; else the first, which is the best fit of the group that suits best.
  const best = typed ? shown.find((o) => fit(o.text, typed) === 0) : undefined;
  const active = Math.min(at ?? (best ? shown.indexOf(best) : 0), shown.length - 1);

  const show = () => {
    if (open || props.disabled) return;
    setOpen(true);
    setAt(
      typed === null
        ? Math.max(
            0,
            found.findIndex((o) => o.value === value),
          )
        : null,
    );
  };
  const pick = (option: Option<T> | undefined) => {
    setOpen(false);
    setTyped(null);
    setPicked((n) => n + 1);
    if (option && option.value !== value) onChange(option.value);
  };
  // What is typed next stands for another choice. At once, with what is shown: a letter that comes before the next picture is drawn
  // would be taken for what was there.
  const rests = typed === null;
  useLayoutEffect(() => {
    if (rests && document.activeElement === input.current) input.current?.select();
  }, [rests, picked, chosen?.text]);
  const onKeyDown = (e: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[e.key];
    if (step) {
      e.preventDefault();
      if (!open) show();
      else setAt(Math.max(0, Math.min(shown.length - 1, active + step)));
    } else if (e.key === "Enter" && open) {
      e.preventDefault();
      e.stopPropagation();
      if (shown[active]) pick(shown[active]);
    } else if (e.key === "Escape" && (open || typed !== null)) {
      e.preventDefault();
      e.stopPropagation();
      e.nativeEvent.stopImmediatePropagation();
      pick(undefined);
    } else if (e.key === "Tab" && open && typed !== null) pick(shown[active]);
    else if (e.key === "Tab") setOpen(false);
  };
  const groups = [...new Set(shown.map((o) => o.group))];

  return (
    <Popover.Root open={open} onOpenChange={(next) => (next ? show() : setOpen(false))}>
      <Frame {...props} id={id}>
        <Popover.Anchor asChild>
          <span className="relative block">
            <input
              ref={(field) => {
                input.current = field;
                takesFocus?.(field);
              }}
              id={id}
              role="combobox"
              autoComplete="off"
              spellCheck={false}
              disabled={props.disabled}
              placeholder={props.placeholder}
              value={typed ?? chosen?.text ?? ""}
              aria-expanded={open}
              aria-controls={open ? `${id}-list` : undefined}
              aria-activedescendant={open && shown[active] ? `${id}-${active}` : undefined}
              aria-autocomplete="list"
              aria-invalid={props.fault ? true : undefined}
              aria-describedby={props.fault ? `${id}-fault` : props.hint ? `${id}-hint` : undefined}
              className={`${box} truncate pr-6 ${props.fault ? "border-signal" : "border-line"}`}
              onFocus={(e) => e.target.select()}
              onClick={show}
              onChange={(e) => {
                setTyped(e.target.value);
                setAt(null);
                setOpen(true);
              }}
              onKeyDown={onKeyDown}
              onBlur={() => {
                // Leaving with a whole name typed means it; anything less leaves things as they were.
                const whole = typed === null ? undefined : options.find((o) => o.text === typed.trim());
                if (whole) pick(whole);
                else setTyped(null);
                setOpen(false);
              }}
            />
            <span
              aria-hidden="true"
              className="pointer-events-none absolute top-1/2 right-2 -translate-y-1/2 text-soft"
            >
              ▾
            </span>
          </span>
        </Popover.Anchor>
      </Frame>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={2}
          collisionPadding={8}
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
          onInteractOutside={(e) => e.target === input.current && e.preventDefault()}
          className="z-50 max-h-[min(340px,var(--radix-popover-content-available-height))] w-[max(var(--radix-popover-trigger-width),240px)] overflow-y-auto rounded-[4px] border border-line bg-card p-1 text-sm text-ink shadow-lg"
        >
          <ul id={`${id}-list`} role="listbox" aria-label={label}>
            {groups.map((group) => (
              <li key={group ?? ""} role="presentation">
                {group && <span className="block px-2 pt-1.5 pb-0.5 text-xs text-soft">{group}</span>}
                <ul role="group" aria-label={group ?? label}>
                  {shown.map(
                    (o, i) =>
                      o.group === group && (
                        <Row
                          key={o.value}
                          id={`${id}-${i}`}
                          option={o}
                          active={i === active}
                          chosen={o.value === value}
                          onPick={() => pick(o)}
                        />
                      ),
                  )}
                </ul>
              </li>
            ))}
          </ul>
          {shown.length === 0 && <p className="px-2 py-1.5 text-soft">Nothing here is called “{typed}”.</p>}
          {found.length > shown.length && (
            <p className="px-2 py-1.5 text-xs text-soft">{found.length - shown.length} more: type on.</p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Row<T extends string>(props: {
  id: string;
  option: Option<T>;
  active: boolean;
  chosen: boolean;
  onPick: () => void;
}) {
  const { option, active } = props;
  return (
    <li
      id={props.id}
      role="option"
      aria-selected={active}
      ref={(row) => {
        if (active) row?.scrollIntoView({ block: "nearest" });
      }}
      className={`cursor-default rounded-[2px] px-2 py-1 ${active ? "bg-tide text-on-tide" : ""}`}
      // The field keeps the focus.
      onPointerDown={(e) => e.preventDefault()}
      onClick={props.onPick}
    >
      <span className="flex items-center gap-2">
        <span className="min-w-0 flex-1">{option.row ?? option.text}</span>
        {props.chosen && <span aria-hidden="true">✓</span>}
      </span>
    </li>
  );
}
