// Light or dark bench; the choice is kept in this browser.
export type Bench = "light" | "dark";

const KEY = "lowfell.bench",
  AT_WORK = "lowfell.bench.at-work";

/** While somebody works at the bench the page is dark, unless it was made light there. */
let atWork = false;

export function workAtBench(on: boolean): void {
  atWork = on;
  applyBench();
}

export function currentBench(): Bench {
  if (atWork) return localStorage.getItem(AT_WORK) === "light" ? "light" : "dark";
  const kept = localStorage.getItem(KEY);
  if (kept === "light" || kept === "dark") return kept;
  return window.matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
}

export function applyBench(bench: Bench = currentBench()): void {
  document.documentElement.dataset["bench"] = bench;
  document.documentElement.toggleAttribute("data-at-work", atWork);
}

export function switchBench(): Bench {
  const next = currentBench() === "light" ? "dark" : "light";
  localStorage.setItem(atWork ? AT_WORK : KEY, next);
  applyBench(next);
  return next;
}
