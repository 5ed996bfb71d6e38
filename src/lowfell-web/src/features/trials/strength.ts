import type { Schema } from "../../api/client";

const LEAST = 0.02;

const share = (factor: number) => `${Math.round(Math.abs(factor - 1) * 100)} %`;

/** How much stronger or weaker a paint is than it was thought: "hides 12 % less and tints 8 % more"; empty where it is as it was thought. */
export function strengthWords(t: Schema["TrialTaught"]): string {
  const [hiding, tint] = [t.hidingAfter / t.hidingBefore, t.tintAfter / t.tintBefore];
  const words = [];
  if (Math.abs(hiding - 1) >= LEAST) words.push(`hides ${share(hiding)} ${hiding > 1 ? "more" : "less"}`);
  if (Math.abs(tint - 1) >= LEAST) words.push(`tints ${share(tint)} ${tint > 1 ? "more" : "less"}`);
  return words.length ? `${words.join(" and ")} than it was thought to` : "";
}
