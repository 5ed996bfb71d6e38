import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { Choice } from "../../kit/Field";
import { plural } from "../../kit/severity";
import { Trouble } from "../../kit/Trouble";
import { labelsOf } from "../../shared/labels";
import { minutes } from "../../shared/words";
import { airOf, clockIn, dayWords, evenings, kindWords } from "./evenings";
import type { Entry } from "./types";

const shown = {
  everything: "",
  "what was laid": "given",
  "what went wrong": "mishap,wiped",
  notes: "noted,accepted,skipped",
  pots: "made,topped up,joined,split off,thrown away,corrected,moved",
} as const;
type Shown = keyof typeof shown;

/** The story, evening by evening, of all pieces or of one. */
export function StoryPanel(props: { setId: string; designs: Schema["PlanOverview"]["designs"] }) {
  const { setId } = props;
  const [only, setOnly] = useState<Shown>("everything");
  const [zoneId, setZoneId] = useState("");
  const log = useInfiniteQuery({
    queryKey: ["log", setId, only, zoneId],
    initialPageParam: "",
    queryFn: ({ signal, pageParam }) =>
      take(
        api.GET("/api/log/{setId}", {
          params: {
            path: { setId },
            query: {
              ...(shown[only] ? { kinds: shown[only] } : {}),
              ...(zoneId ? { zoneId } : {}),
              ...(pageParam ? { before: pageParam } : {}),
            },
          },
          signal,
        }),
      ),
    getNextPageParam: (page) => page.next || undefined,
  });
  const error = hindered(log);
  if (error) return <Trouble error={error} retry={() => void log.refetch()} />;
  // When hands came onto something is told by the minutes of what they did.
  const entries =
    log.data?.pages.flatMap((p) => p.entries).filter((e) => e.kind !== "begun" && e.kind !== "paused") ?? [];
  const air = new Map(log.data?.pages.flatMap((p) => p.air.map((a) => [a.session, a] as const)));
  const marks = log.data?.pages.flatMap((p) => p.marks) ?? [];
  const timeZone = log.data?.pages[0]?.timeZone ?? "UTC";
  return (
    <>
      <div className="no-print mb-3 grid max-w-xl grid-cols-2 gap-3">
        <Choice label="Show" value={only} options={Object.keys(shown) as Shown[]} onChange={setOnly} />
        <Choice
          label="Of zone"
          value={zoneId}
          options={[
            { value: "", text: "all" },
            ...props.designs.flatMap((d) =>
              d.zones.map((z) => ({ value: z.id, text: `${z.name} on ${d.name}` })),
            ),
          ]}
          onChange={setZoneId}
        />
      </div>
      {log.data && entries.length + marks.length === 0 && (
        <p className="text-soft">
          Nothing yet. What is done at the bench, and what happens to pots, is written here by itself.
        </p>
      )}
      {evenings(entries, marks).map((e) => (
        <section key={e.day} aria-label={dayWords(e.day)} className="mb-5 break-inside-avoid-page">
          <h2 className="sticky -top-3 z-[1] flex flex-wrap items-baseline gap-x-3 border-b border-line bg-paper py-1 text-sm font-semibold">
            {dayWords(e.day)}
            <span className="text-xs font-normal text-soft">
              {e.painters.join(", ")}
              {e.minutes > 0 && ` · ${minutes(e.minutes)} hands on`}
              {air.get(e.day) && ` · ${airOf(air.get(e.day)!)}, measured`}
            </span>
          </h2>
          <ul>
            {e.lines.map(({ entry, marks }) =>
              entry ? (
                <Line key={entry.id} entry={entry} setId={setId} timeZone={timeZone} />
              ) : (
                <Marks key={`${marks.at} ${marks.piece} ${marks.zone}`} marks={marks} timeZone={timeZone} />
              ),
            )}
          </ul>
        </section>
      ))}
      {log.hasNextPage && (
        <Button disabled={log.isFetchingNextPage} onClick={() => void log.fetchNextPage()}>
          Earlier
        </Button>
      )}
    </>
  );
}

/** A varied layer that came out otherwise on a piece than its plan says. */
function Marks({ marks: m, timeZone }: { marks: Schema["LogMarks"]; timeZone: string }) {
  return (
    <li
      data-entry="marks"
      className="grid grid-cols-[3.2rem_minmax(0,1fr)] gap-x-2 border-b border-line/60 py-1.5 text-sm"
    >
      <time dateTime={m.at} className="text-xs leading-5 text-soft">
        {clockIn(m.at, timeZone)}
      </time>
      <div>
        <b>Otherwise than planned</b>: {m.technique}, {m.zone} on {m.design} · {m.piece}
        <span className="block text-xs text-soft">
          {plural(m.marks, "mark")}
          {m.meanMm != null && ` of ${m.meanMm} mm`} instead of {m.planned}
          {m.planned > 0 && ` of ${m.plannedMm} mm`}
          {m.note && ` · ${m.note}`}
        </span>
      </div>
    </li>
  );
}

function Line({ entry: e, setId, timeZone }: { entry: Entry; setId: string; timeZone: string }) {
  const wrong = e.kind === "mishap" || e.kind === "wiped";
  return (
    <li
      data-entry={e.kind}
      className="grid grid-cols-[3.2rem_minmax(0,1fr)] gap-x-2 border-b border-line/60 py-1.5 text-sm"
    >
      <time dateTime={e.at} className="text-xs leading-5 text-soft">
        {e.guessed && <span title="What the device's clock said cannot be">about </span>}
        {clockIn(e.at, timeZone)}
      </time>
      <div>
        <span className={e.takenBack ? "text-soft line-through" : ""}>
          <b className={wrong ? "text-amber" : ""}>
            {wrong && "▲ "}
            {kindWords(e.kind)}
          </b>
          {e.technique && `: ${e.technique}`}
          {e.zone && `, ${e.zone} on ${e.design}`}
          {e.pieces.length > 0 && ` · ${labelsOf(e.pieces)}`}
          {e.pot && ` · ${e.pot}`}
        </span>
        {e.takenBack && <span className="text-xs text-soft"> taken back</span>}
        {e.minutes !== null && (
          <span className="text-xs text-soft">
            {" "}
            · {minutes(e.minutes)}
            {!e.counts && " by the clock, not counted"}
          </span>
        )}
        {e.note && <span className="block">{e.note}</span>}
        {e.savedBy && <span className="block">Saved by: {e.savedBy}</span>}
        {e.photos.length > 0 && (
          <span className="mt-1 flex flex-wrap gap-2">
            {e.photos.map((p) => (
              <a key={p.id} href={`/api/log/${setId}/photos/${p.id}.jpg`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/log/${setId}/photos/${p.id}/small.jpg`}
                  alt={p.words || `Photograph at ${e.technique || kindWords(e.kind)}`}
                  loading="lazy"
                  className="h-24 rounded-[3px]"
                />
              </a>
            ))}
          </span>
        )}
      </div>
    </li>
  );
}
