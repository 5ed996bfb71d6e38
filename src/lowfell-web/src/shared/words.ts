// Figures as a painter says them.

/** Reads "2:1", "2 : 1.5" or "neat"; null when it is neither. */
export function readRatio(text: string): { paint: number; thinner: number } | "neat" | null {
  const plain = text.trim().toLowerCase().replace(",", ".");
  if (plain === "" || plain === "neat") return "neat";
  const found = /^(\d+(?:\.\d{1,2})?)\s*:\s*(\d+(?:\.\d{1,2})?)$/.exec(plain);
  if (!found) return null;
  const [paint, thinner] = [Number(found[1]), Number(found[2])];
  if (paint <= 0 || paint > 1000 || thinner > 1000) return null;
  return thinner === 0 ? "neat" : { paint, thinner };
}

export const minutes = (n: number) => {
  if (n < 90) return `${Math.round(n)} min`;
  if (n < 48 * 60) {
    const h = Math.floor(n / 60);
    const rest = Math.round(n % 60);
    return rest && h < 8 ? `${h} h ${rest}` : `${Math.round(n / 60)} h`;
  }
  return `${Math.round((n / 1440) * 2) / 2} days`;
};

/** Volumes to sensible precision, never false digits. */
export const ml = (n: number) => (n < 10 ? `${Math.round(n * 10) / 10} ml` : `${Math.round(n)} ml`);

/** What is taken of a material as it is bought: grains by weight, ready-made things by number, the rest in ml. */
export const taken = (n: { ml: number; grams: number | null; count: number | null }) =>
  n.count ? `${n.count} pieces` : n.grams ? `${n.grams < 10 ? n.grams : Math.round(n.grams)} g` : ml(n.ml);

/** From a thin to a heavy hand, in what the usual amount is said in. */
export const takenRange = (n: { ml: number; grams: number | null; lowMl: number; highMl: number }) => {
  if (!n.grams || n.ml <= 0) return mlRange(n.lowMl, n.highMl);
  const grams = (of: number) => Math.round((of * n.grams!) / n.ml);
  return `${grams(n.lowMl)}–${grams(n.highMl)} g`;
};

/** From a thin to a heavy hand: "18–33 ml". */
export const mlRange = (low: number, high: number) => {
  const [from, to] = [ml(low), ml(high)];
  return from === to ? to : `${from.replace(" ml", "")}–${to}`;
};

/** How far two colours are apart, in words with the figure (CIEDE2000) behind them: the figure alone tells a painter nothing. */
export const differs = (difference: number) => `${seen(difference)}, ΔE ${difference.toFixed(1)}`;

const seen = (difference: number) =>
  difference < 1
    ? "nobody sees it"
    : difference < 2
      ? "hardly seen"
      : difference < 4
        ? "seen side by side"
        : difference < 10
          ? "clearly seen"
          : "seen at once";

/** Further than this nobody sits from a table. */
const TABLE_ENDS_M = 10;

/** From where a mark can no longer be made out. */
export const lostBeyond = (metres: number) =>
  metres < 0.05
    ? "not seen from anywhere"
    : metres >= TABLE_ENDS_M
      ? "seen from anywhere at a table"
      : `lost beyond ${metres.toFixed(1)} m`;

/** A sum in the money of the workshop. */
export const money = (sum: number, currency: string) =>
  currency
    ? currency.length === 1
      ? `${currency} ${sum.toFixed(2)}`
      : `${sum.toFixed(2)} ${currency}`
    : sum.toFixed(2);

/** A share as a painter says it. */
export const percent = (share: number) => `${Math.round(share * 100)} %`;

/** How heavily a layer is laid, against what is usual for its technique. */
export const heaviness = (strength: number) =>
  strength === 1
    ? "as usual"
    : strength === 0
      ? "not at all"
      : `${strength < 1 ? "lighter" : "heavier"}, ${percent(strength)} of usual`;

/** The day of an instant by the workshop's calendar: "20 Nov 2026". */
export const dayIn = (at: string, timeZone: string) =>
  new Date(at).toLocaleDateString("en-GB", { timeZone, day: "numeric", month: "short", year: "numeric" });
