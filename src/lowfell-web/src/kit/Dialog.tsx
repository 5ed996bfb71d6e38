import { Dialog as Radix } from "radix-ui";
import { useEffect, useRef, useState, type ReactNode } from "react";

/** A hand that types goes on for so long after a window has come up in front of it. */
const CALM_MS = 500;

/**
 * A window over the page. Escape closes it; focus returns to where it was. One that comes by itself takes no key for half a second, and
 * none of its answers has the focus.
 */
export function Dialog(props: {
  open: boolean;
  onClose: () => void;
  title: string;
  says?: string;
  wide?: boolean;
  bySelf?: boolean;
  children: ReactNode;
}) {
  const content = useRef<HTMLDivElement>(null);
  const [listens, setListens] = useState(!props.bySelf);
  useEffect(() => {
    if (!props.bySelf) return;
    const timer = window.setTimeout(() => setListens(true), CALM_MS);
    return () => window.clearTimeout(timer);
  }, [props.bySelf]);
  return (
    <Radix.Root open={props.open} onOpenChange={(open) => !open && props.onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-20 bg-[rgb(0_0_0/0.45)]" />
        <Radix.Content
          ref={content}
          aria-describedby={undefined}
          data-listens={listens}
          onOpenAutoFocus={(e) => {
            if (!props.bySelf) return;
            e.preventDefault();
            content.current?.focus();
          }}
          onKeyDownCapture={(e) => {
            if (listens) return;
            e.preventDefault();
            e.stopPropagation();
          }}
          onEscapeKeyDown={(e) => !listens && e.preventDefault()}
          className={`fixed top-1/2 left-1/2 z-30 max-h-[92vh] w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-[4px] border border-line bg-card p-5 ${props.wide ? "max-w-3xl" : "max-w-lg"}`}
        >
          <Radix.Title className="text-lg font-semibold">{props.title}</Radix.Title>
          {props.says && <p className="mt-1 text-soft">{props.says}</p>}
          <div className="mt-4">{props.children}</div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
