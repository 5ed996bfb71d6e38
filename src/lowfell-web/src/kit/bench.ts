// Light or dark bench; the choice is kept in this browser.
export type Bench = "light" | "dark";

const KEY = "lowfell.bench";

export function currentBench(): Bench {
  const kept = localStorage.getItem(KEY);
  if (kept === "light" || kept === "dark") return kept;
  return window.matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
}

export function applyBench(bench: Bench = currentBench()): void {
  document.documentElement.dataset["bench"] = bench;
}

export function switchBench(): Bench {
  const next = currentBench() === "light" ? "dark" : "light";
  localStorage.setItem(KEY, next);
  applyBench(next);
  return next;
}
