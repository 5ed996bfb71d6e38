import { useEffect, useState, type RefObject } from "react";
import { chainPath, type Plan } from "./evenings";

/** The operations that set the finish, tied by one line drawn over all sessions. */
export function ChainLine({ over, plan }: { over: RefObject<HTMLElement | null>; plan: Plan }) {
  const [drawn, setDrawn] = useState<{ path: string; ends: { x: number; y: number }[] } | null>(null);
  useEffect(() => {
    const box = over.current;
    if (!box) return;
    const draw = () => {
      const at = box.getBoundingClientRect();
      const links = [...box.querySelectorAll<HTMLElement>("[data-binds]")].sort(
        (a, b) => Number(a.dataset.binds) - Number(b.dataset.binds),
      );
      const feet = links
        .filter((l) => l.offsetParent !== null)
        .map((l) => {
          const r = l.getBoundingClientRect();
          const evening = l.closest("[data-session]")!.getBoundingClientRect();
          const y = Math.round(r.bottom - at.top);
          return {
            from: { x: Math.round(r.left - at.left), y },
            to: { x: Math.round(r.right - at.left), y },
            gap: Math.round(evening.bottom - at.top) + NIGHT_PX,
          };
        });
      setDrawn(feet.length > 1 ? { path: chainPath(feet), ends: feet.map((f) => f.to) } : null);
    };
    draw();
    const watch = new ResizeObserver(draw);
    watch.observe(box);
    return () => watch.disconnect();
  }, [over, plan]);
  if (!drawn) return null;
  return (
    <svg aria-hidden="true" className="pointer-events-none absolute inset-0 z-10 size-full overflow-visible">
      <path d={drawn.path} fill="none" stroke="var(--ink)" strokeWidth="2" />
      {drawn.ends.map((e) => (
        <circle key={`${e.x} ${e.y}`} cx={e.x} cy={e.y} r="3" fill="var(--ink)" />
      ))}
    </svg>
  );
}

const NIGHT_PX = 6;
