import type { Schema } from "../../../api/client";
import { capital } from "../layerWords";
import type { Layer } from "../stack";
import { decidesWords, handWords } from "./hand";

/** Thin hand, usual and heavy hand after a layer, at each position, and the layer that decides. */
export function Hands(props: { said: Schema["LayerReading"]; layers: Layer[] }) {
  const { said, layers } = props;
  return (
    <figure className="mt-2 text-xs" data-hands>
      <div
        className="grid grid-cols-[52px_repeat(3,minmax(0,1fr))] gap-x-px pb-0.5 text-soft"
        aria-hidden="true"
      >
        <span />
        <span>thin hand</span>
        <span>usual</span>
        <span>heavy hand</span>
      </div>
      {(["recess", "field", "raised"] as const).map((p) => {
        const range = said.range[p];
        const decides = decidesWords(range, layers);
        return (
          <div key={p} className="border-t border-line py-1">
            <div
              role="img"
              aria-label={`${p} ${said[p]}: ${handWords(range)}${decides ? `; ${decides}` : ""}`}
              className="grid grid-cols-[52px_repeat(3,minmax(0,1fr))] items-center gap-x-px"
            >
              <span className="text-soft">{capital(p)}</span>
              {[range.thin, said[p], range.heavy].map((c, i) => (
                <span key={i} className="h-5" style={{ backgroundColor: c }} />
              ))}
            </div>
            <p className="text-right text-soft" aria-hidden="true">
              {range.difference < 1 ? (
                "no difference to see"
              ) : (
                <>
                  <b className="text-ink">ΔE {range.difference.toFixed(1)}</b> · {decides}
                </>
              )}
            </p>
          </div>
        );
      })}
      <figcaption className="text-soft">
        Nine hands of ten end between thin and heavy, an estimate from usual films.
      </figcaption>
    </figure>
  );
}
