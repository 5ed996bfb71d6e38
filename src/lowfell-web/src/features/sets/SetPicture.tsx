import type { Schema } from "../../api/client";
import { Silhouette } from "../../drawing/Silhouette";

/** A set at a glance: the outlines of its designs over a band of the colours it will have, each as wide as it is large. */
export function SetPicture({ card }: { card: Schema["SetCard"] }) {
  const outlines = card.outlines.slice(0, MOST);
  // The smallest are left out: those shown fill the band.
  const whole = card.picture.reduce((sum, c) => sum + c.share, 0) || 1;
  const starts = card.picture.map(
    (_, i) => (100 / whole) * card.picture.slice(0, i).reduce((sum, c) => sum + c.share, 0),
  );
  return (
    <span className="block border border-line bg-ground text-ink" aria-hidden="true">
      <span className="flex flex-wrap gap-1 px-2 pt-2 pb-1">
        {outlines.map((shape, i) => (
          <Silhouette
            key={i}
            shape={shape}
            colour={card.picture[i % Math.max(1, card.picture.length)]?.colour}
          />
        ))}
        {card.outlines.length > MOST && (
          <span className="self-center text-xs text-soft">+{card.outlines.length - MOST}</span>
        )}
      </span>
      <svg viewBox="0 0 100 6" preserveAspectRatio="none" className="block h-4 w-full">
        {card.picture.map((c, i) => (
          <rect
            key={c.colour}
            x={starts[i]}
            y="0"
            width={(100 * c.share) / whole + 0.2}
            height="6"
            fill={c.colour}
          />
        ))}
      </svg>
    </span>
  );
}

const MOST = 8;
