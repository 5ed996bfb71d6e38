import { Tooltip } from "radix-ui";
import { useEffect, useState } from "react";
import { tipOf, tipOfFocus } from "./tip";

const POINTER_MS = 350,
  FOCUS_MS = 600;

type Shown = { text: string; box: DOMRect; byFocus: boolean };

/**
 * One tooltip for the whole page: the whole of a name that is cut off, or what an element says of itself in `data-tip`. It comes with
 * the pointer and with the focus, stays while the pointer is on it, and goes with Escape. One that came with the focus lets the
 * pointer through to what it covers: nobody aimed at it.
 */
export function Tip() {
  const [shown, setShown] = useState<Shown | null>(null);
  useEffect(() => {
    let due = 0;
    const hide = () => {
      window.clearTimeout(due);
      setShown(null);
    };
    const show = (found: ReturnType<typeof tipOf>, byFocus: boolean) => {
      window.clearTimeout(due);
      if (!found) return setShown(null);
      due = window.setTimeout(
        () => {
          if (found.at.isConnected)
            setShown({ text: found.text, box: found.at.getBoundingClientRect(), byFocus });
        },
        byFocus ? FOCUS_MS : POINTER_MS,
      );
    };
    const onOver = (e: PointerEvent) => {
      const at = e.target as Element;
      if (e.pointerType === "mouse" && !at.closest("[data-tip-shown]")) show(tipOf(at), false);
    };
    const onFocus = (e: FocusEvent) => {
      const at = e.target as Element;
      if (at.matches(":focus-visible")) show(tipOfFocus(at), true);
    };
    document.addEventListener("pointerover", onOver);
    document.addEventListener("focusin", onFocus);
    for (const end of ["pointerdown", "keydown", "wheel"] as const)
      document.addEventListener(end, hide, true);
    return () => {
      window.clearTimeout(due);
      document.removeEventListener("pointerover", onOver);
      document.removeEventListener("focusin", onFocus);
      for (const end of ["pointerdown", "keydown", "wheel"] as const)
        document.removeEventListener(end, hide, true);
    };
  }, []);
  if (!shown) return null;
  const { left, top, width, height } = shown.box;
  return (
    <Tooltip.Provider>
      <Tooltip.Root open>
        <Tooltip.Trigger asChild>
          <span
            aria-hidden="true"
            tabIndex={-1}
            className="pointer-events-none fixed"
            style={{ left, top, width, height }}
          />
        </Tooltip.Trigger>
        <Tooltip.Portal container={document.querySelector<HTMLElement>("main")}>
          <Tooltip.Content
            data-tip-shown
            side="bottom"
            sideOffset={4}
            collisionPadding={8}
            data-by-focus={shown.byFocus || undefined}
            className="z-50 max-w-[min(420px,92vw)] rounded-[3px] bg-ink px-2 py-1 text-xs break-words whitespace-pre-line text-paper"
          >
            {shown.text}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
