import { plural } from "../../kit/severity";
import { minutes, ml, percent } from "../../shared/words";
import { FaceDrawing } from "./FaceDrawing";
import type { Piece, Zone } from "./types";

/** The plan over all pieces of a zone: drawn, in words, and what it comes to. */
export function ZonePlan(props: { zone: Zone; hasMarks: boolean; onPiece: (piece: Piece) => void }) {
  const { zone, hasMarks } = props;
  const { face, figures: f } = zone;
  // A long strip is drawn across two cards.
  const long = face.widthMm > 4 * face.heightMm;
  return (
    <section aria-label={`${zone.zone}, ${zone.design}`} className="mt-5 break-inside-avoid-page">
      <h2 className="text-base font-semibold">
        {zone.zone}, {zone.design}
      </h2>
      <p className="text-xs text-soft">
        Face {face.widthMm} × {face.heightMm} mm{!face.measured && ", by its area and edges"}
        {face.anchors.length > 0 &&
          ` · with ${face.anchors.map((a) => a.name).join(", ")}, placed by guess`}{" "}
        · {plural(zone.pieces.length, "piece")} · about {ml(f.ml)} and {minutes(f.minutes)}
      </p>
      {hasMarks && (
        <p className="text-xs text-soft">
          {f.marksAPiece} on a piece, {f.smallestMm} to {f.largestMm} mm, on the mean {f.meanMm} of{" "}
          {f.askedMm} mm · covers {percent(f.covers)} ·{" "}
          {f.sharedPlaces === 0
            ? "no neighbours share a place"
            : `${plural(f.sharedPlaces, "pair")} of neighbours share a place`}{" "}
          · {zone.places} places, each used{" "}
          {f.leastUsed === f.mostUsed ? f.mostUsed : `${f.leastUsed} to ${f.mostUsed}`} times
        </p>
      )}
      {f.done > 0 && (
        <p className="text-sm">
          Laid on {plural(f.done, "piece")}
          {f.doneMarks !== null && `: ${f.doneMarks} a piece against ${f.marksAPiece} planned`}
          {f.doneMm !== null && `, ${f.doneMm} mm against ${f.meanMm}`}
          {f.otherwise > 0 && `; ${plural(f.otherwise, "piece")} noted otherwise`}.
        </p>
      )}
      <ul
        aria-label={`Pieces of ${zone.zone}, ${zone.design}`}
        className={`mt-2 grid gap-3 ${long ? "grid-cols-[repeat(auto-fill,minmax(270px,1fr))]" : "grid-cols-[repeat(auto-fill,minmax(165px,1fr))]"} print:grid-cols-4`}
      >
        {zone.pieces.map((p) => (
          <li key={p.pieceId} className="break-inside-avoid">
            <button
              type="button"
              data-piece={p.label}
              aria-label={`${p.label}: ${p.words}${p.done ? `; ${p.done.marks} laid, ${p.done.note}` : ""}, note what was laid`}
              aria-haspopup="dialog"
              className="flex h-full w-full flex-col rounded-[3px] border border-line bg-card p-1.5 text-left hover:bg-aside"
              onClick={() => props.onPiece(p)}
            >
              <FaceDrawing zone={zone} piece={p} className="max-h-32 w-full shrink-0" />
              <span className="mt-1 block text-xs leading-snug">
                <b className="text-sm">{p.label}</b>
                {p.state === "done" && (
                  <span className="text-soft"> · {p.done ? "laid otherwise" : "laid"}</span>
                )}{" "}
                {p.words}
                {p.done && (
                  <span className="block text-amber">
                    ▲ {p.done.marks} laid{p.done.meanMm && `, ${p.done.meanMm} mm`}
                    {p.done.note && `: ${p.done.note}`}
                  </span>
                )}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
