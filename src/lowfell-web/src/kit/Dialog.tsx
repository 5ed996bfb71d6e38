import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

/** A window over the page. Escape closes it; focus returns to where it was. */
export function Dialog(props: {
  open: boolean;
  onClose: () => void;
  title: string;
  says?: string;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Radix.Root open={props.open} onOpenChange={(open) => !open && props.onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-20 bg-[rgb(0_0_0/0.45)]" />
        <Radix.Content
          aria-describedby={undefined}
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
