import { useState } from "react";
import type { Task } from "./types";

const none: ReadonlySet<string> = new Set();

/** Zones that are taken out of what is told of a task; what was taken out of one layer says nothing of the next. */
export function useTaken(task: Task | null) {
  const [taken, setTaken] = useState({ of: "", out: none });
  const of = task ? `${task.seenId} ${task.zoneId}` : "";
  const out = taken.of === of ? taken.out : none;
  const turn = (zoneId: string) => {
    const next = new Set(out);
    if (!next.delete(zoneId)) next.add(zoneId);
    setTaken({ of, out: next });
  };
  return [out, turn] as const;
}
