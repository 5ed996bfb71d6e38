import type { ReactNode } from "react";

/** What may be wider than its window, a table as a rule: it scrolls in a frame of its own, by keys too, and the page never does. */
export const Wide = ({ label, children }: { label: string; children: ReactNode }) => (
  <div
    role="group"
    aria-label={label}
    tabIndex={0}
    className="relative overflow-x-auto outline-offset-[-2px] print:overflow-visible"
  >
    {children}
  </div>
);
