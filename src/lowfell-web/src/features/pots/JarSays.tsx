import { Choice } from "../../kit/Field";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schema } from "../../api/client";
import { Drawdown } from "../../shared/Drawdown";
import { short, span, type Draft, type Look } from "./pots";

/** What is predicted of a mix: over black and white, whether it fits, how long it lasts, and one pot or several. */
export function JarSays(props: {
  setId: string;
  look: Look;
  recipeKey?: string;
  draft: Draft;
  onDraft: (change: Partial<Draft>) => void;
}) {
  const { look } = props;
  return (
    <aside aria-label="What is predicted" className="max-w-[420px] text-xs">
      <Coats drawdowns={look.drawdowns} />
      <Fit remarks={look.remarks} />
      {look.airbrush && <Airbrush note={look.airbrush} draft={props.draft} onDraft={props.onDraft} />}
      <h3 className="mt-3 font-semibold">How long it stays good (estimates)</h3>
      <dl className="grid grid-cols-[84px_1fr]">
        {look.life.toReversed().map((l) => (
          <div key={l.vessel} className="contents">
            <dt className="text-soft">{l.vessel}</dt>
            <dd>
              about {span(l.usualMinutes)}{" "}
              <span className="text-soft">
                ({span(l.lowMinutes)} to {span(l.highMinutes)})
              </span>
            </dd>
          </div>
        ))}
      </dl>
      {props.recipeKey && <Advice setId={props.setId} recipeKey={props.recipeKey} />}
      {look.cautions.length > 0 && (
        <div className="mt-3 border-l-[3px] border-ink bg-card px-2.5 py-2">
          <b>Care</b>
          {look.cautions.map((c) => (
            <p key={c}>{c}</p>
          ))}
          <p className="text-soft">The label and data sheet, local rules and trained advice come first.</p>
        </div>
      )}
    </aside>
  );
}

/** What something put in would make: coats of it on a card, and whether it fits. */
export function Makes({ answer }: { answer: Schema["PotAnswer"] }) {
  return (
    <>
      <div className="mt-2 max-w-[280px] text-xs">
        <Coats drawdowns={answer.drawdowns} />
      </div>
      <div className="text-xs">
        <Fit remarks={answer.remarks} />
      </div>
    </>
  );
}

/** Whether a mix fits, is too thin, or has the wrong thinner; worst first. */
export function Fit({ remarks }: { remarks: readonly Schema["PotRemarkDto"][] }) {
  return (
    <ul className="mt-2" aria-label="Whether it fits">
      {remarks.map((r) => (
        <li
          key={r.says}
          data-fit={r.fit}
          className={`border-l-[3px] px-2.5 py-1.5 ${r.severity === "stop" ? "border-signal bg-signal-wash" : r.severity === "caution" ? "border-amber bg-amber-wash" : "border-tide bg-card"}`}
        >
          {r.severity === "stop" && (
            <b className="text-signal">
              <span aria-hidden="true">■ </span>Stop.{" "}
            </b>
          )}
          {r.severity === "caution" && (
            <b className="text-amber">
              <span aria-hidden="true">▲ </span>Caution.{" "}
            </b>
          )}
          {r.says}
        </li>
      ))}
    </ul>
  );
}

/** One, two and three brushed coats over the black and the white half of a card. */
export function Coats({ drawdowns }: { drawdowns: readonly Schema["Drawdown"][] }) {
  return (
    <figure className="bg-ground p-2">
      <div className="grid grid-cols-3 gap-1">
        {drawdowns.map((d) => (
          <div
            key={d.coats}
            role="img"
            aria-label={`${d.coats} coats: ${d.overBlack} over black, ${d.overWhite} over white`}
          >
            <Drawdown over={d} height={44} />
          </div>
        ))}
      </div>
      <figcaption className="mt-1 grid grid-cols-3 text-center [color:var(--on-ground)]">
        {drawdowns.map((d) => (
          <span key={d.coats}>{d.coats === 1 ? "1 coat" : `${d.coats} coats`}</span>
        ))}
      </figcaption>
    </figure>
  );
}

function Airbrush(props: {
  note: Schema["AirbrushDto"];
  draft: Draft;
  onDraft: (change: Partial<Draft>) => void;
}) {
  const { note, draft } = props;
  const range = (b: { low: number; high: number }, unit: string) =>
    `${b.low.toFixed(1)} to ${b.high.toFixed(1)} ${unit}`;
  return (
    <section aria-labelledby="airbrush" className="mt-3">
      <h3 id="airbrush" className="font-semibold">
        Airbrush
      </h3>
      <p>
        Start at <b>{note.startBar.toFixed(1)} bar</b> ({range(note.pressureBar, "bar")}), needle{" "}
        {range(note.needleMm, "mm")}, thinner {Math.round(note.thinnerShare.low * 100)} to{" "}
        {Math.round(note.thinnerShare.high * 100)} %.{" "}
        <span className="text-soft">Rules of thumb; the label wins.</span>
      </p>
      <div className="mt-1 flex gap-3">
        <Choice
          beside
          label="Needle"
          value={String(draft.needleMm ?? "")}
          options={[
            { value: "", text: "usual" },
            ...[0.15, 0.2, 0.3, 0.35, 0.4, 0.5, 0.6].map((n) => ({ value: String(n), text: `${n} mm` })),
          ]}
          onChange={(n) => props.onDraft({ needleMm: n ? Number(n) : null })}
        />
        <Choice
          beside
          label="Pressure"
          value={String(draft.bar ?? "")}
          options={[
            { value: "", text: "not set" },
            ...[0.6, 0.8, 1, 1.2, 1.5, 1.8, 2, 2.5, 3].map((n) => ({ value: String(n), text: `${n} bar` })),
          ]}
          onChange={(n) => props.onDraft({ bar: n ? Number(n) : null })}
        />
      </div>
      {note.warnings.map((w) => (
        <p key={w} className="mt-1 border-l-[3px] border-amber bg-amber-wash px-2 py-1">
          <span aria-hidden="true">▲ </span>
          {w}
        </p>
      ))}
    </section>
  );
}

function Advice({ setId, recipeKey }: { setId: string; recipeKey: string }) {
  const advice = useQuery({
    queryKey: ["pots", setId, "advice", recipeKey],
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/pots/{setId}/advice", {
          params: { path: { setId }, query: { key: recipeKey } },
          signal,
        }),
      ),
  });
  if (!advice.data) return null;
  return (
    <section aria-labelledby="several" className="mt-3" data-advice>
      <h3 id="several" className="font-semibold">
        One pot or several (estimates)
      </h3>
      <dl className="grid grid-cols-[84px_1fr] gap-y-1">
        {advice.data.toReversed().map((a) => (
          <div key={a.vessel} className="contents">
            <dt className="text-soft">{a.vessel}</dt>
            <dd>
              {a.vessel === "jar"
                ? a.says
                : `${a.pots} ${a.pots === 1 ? "pot" : "pots"} of ${short(a.eachMl)} ml`}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-soft">About {span(advice.data[0]!.workMinutes)} of hands-on work in all.</p>
    </section>
  );
}
