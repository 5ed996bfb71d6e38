import { useLayoutEffect, useState } from "react";
import type { Schema } from "../../api/client";

type Line = { key: string; d: string; severity: Schema["Severity"]; strong: boolean };

const stroke = { stop: "var(--signal)", caution: "var(--amber)", hint: "var(--tide)" } as const;
const dash = { stop: undefined, caution: "5 2", hint: "2 3" } as const;

/** Lines that tie each remark to the layer it speaks of. Drawn over the page, touched by nothing. */
export function Leaders(props: {
  frame: HTMLDivElement | null;
  findings: Schema["FindingDto"][];
  selected: string | null;
  revision: unknown;
  newestOnTop: boolean;
  editing: string | null;
}) {
  const { frame, findings, selected } = props;
  const [lines, setLines] = useState<Line[]>([]);
  useLayoutEffect(() => {
    const host = frame;
    // Nothing to tie: measuring the page for nothing would hold up every frame of a moving slider.
    if (!host || findings.length === 0) return;
    const draw = () => {
      const origin = host.getBoundingClientRect();
      const scroll = host.querySelector("[data-scroll=stack]")?.getBoundingClientRect();
      const next: Line[] = [];
      for (const f of findings) {
        const row = host.querySelector(`[data-row="${f.layers[0]}"]`)?.getBoundingClientRect();
        const note = host
          .querySelector(`[data-finding="${f.rule}"][data-hangs-on="${f.layers[0]}"]`)
          ?.getBoundingClientRect();
        if (!row || !note || !scroll) continue;
        const y1 = row.top + 18;
        if (
          y1 < scroll.top ||
          y1 > scroll.bottom ||
          note.bottom < origin.top + 8 ||
          note.top > origin.bottom - 8
        )
          continue;
        const [x1, x2] = [row.right - origin.left + 1, note.left - origin.left];
        const y2 = Math.max(note.top + 15, origin.top + 6) - origin.top;
        const mid = x1 + (x2 - x1) * 0.45;
        next.push({
          key: `${f.rule}.${f.layers[0]}`,
          d: `M${x1} ${y1 - origin.top}C${mid} ${y1 - origin.top} ${mid} ${y2} ${x2} ${y2}`,
          severity: f.severity,
          strong: selected === f.layers[0],
        });
      }
      setLines((old) => (JSON.stringify(old) === JSON.stringify(next) ? old : next));
    };
    draw();
    const sizes = new ResizeObserver(draw);
    sizes.observe(host);
    host.querySelectorAll("ol, aside > *").forEach((e) => sizes.observe(e));
    host.addEventListener("scroll", draw, true);
    return () => {
      sizes.disconnect();
      host.removeEventListener("scroll", draw, true);
    };
  }, [frame, findings, selected, props.revision, props.newestOnTop, props.editing]);
  return (
    <svg className="pointer-events-none absolute max-md:hidden inset-0 h-full w-full" aria-hidden="true">
      {(findings.length === 0 ? [] : lines).map((l) => (
        <path
          key={l.key}
          d={l.d}
          fill="none"
          stroke={stroke[l.severity]}
          strokeWidth={l.strong ? 2.2 : 1.3}
          strokeDasharray={dash[l.severity]}
        />
      ))}
    </svg>
  );
}
