import { useEffect } from "react";
import { role } from "../../kit/role";
import type { Act } from "./Actions";

/** The two keys of a page-turner pedal: done, and take back. */
export function usePedal(done: Act, back: Act) {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const act = { PageDown: done, PageUp: back }[e.key];
      if (!act || e.defaultPrevented || document.querySelector("[role=dialog]")) return;
      e.preventDefault();
      if (!act.off && !e.repeat && role !== "look") act.run();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  });
}
