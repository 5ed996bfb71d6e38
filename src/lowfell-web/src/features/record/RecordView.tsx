import { useQueries, useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { overviewQuery } from "../../api/queries";
import { Hatch } from "../../drawing/Hatch";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { plural } from "../../kit/severity";
import { Swatch } from "../../kit/Swatch";
import { Trouble } from "../../kit/Trouble";
import { labelsOf } from "../../shared/labels";
import { dayIn, ml } from "../../shared/words";
import { asDone, differs, type Done } from "./record";

const MOST_PHOTOS = 24;

/** The set as it was really done, on paper: what lies on which pieces, from which pots, and what it looked like. */
export function Component() {
  const { setId = "" } = useParams();
  const overview = useQuery(overviewQuery(setId));
  const record = useQuery({
    queryKey: ["record", setId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/log/{setId}/record", { params: { path: { setId } }, signal })),
  });
  const photos = useQuery({
    queryKey: ["photos", setId, "record"],
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/log/{setId}/photos", {
          params: { path: { setId }, query: { most: MOST_PHOTOS } },
          signal,
        }),
      ),
  });
  const zones = overview.data?.designs.flatMap((d) => d.zones) ?? [];
  const cores = useQueries({
    queries: zones.map((z) => ({
      queryKey: ["cores", setId, z.id],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        take(
          api.GET("/api/pieces/{setId}/cores", {
            params: { path: { setId }, query: { zoneId: z.id } },
            signal,
          }),
        ),
    })),
  });
  const error = hindered(overview) ?? hindered(record);
  const ready = !!overview.data && !!record.data && cores.every((c) => c.data);
  useCommands("Record", [{ id: "record print", key: ";", says: "print it", run: () => window.print() }], {
    view: true,
    ready: !!error || ready,
  });
  if (error)
    return <Trouble error={error} retry={() => void Promise.all([overview.refetch(), record.refetch()])} />;
  if (!ready) return <p className="p-6 text-soft">Putting the record together…</p>;
  const { name, scale, designs } = overview.data!;
  const { begun, last, evenings, hours, painters, pots, trials, timeZone } = record.data!;
  return (
    <div className="h-full overflow-y-auto print:h-auto print:overflow-visible">
      <article className="mx-auto max-w-4xl px-5 pt-3 pb-8 text-sm">
        <header className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b-2 border-ink pb-2">
          <h1 className="text-xl font-semibold">{name}, as it was done</h1>
          <span className="text-soft">1:{scale}</span>
          <Button className="no-print ml-auto" onClick={() => window.print()}>
            Print <kbd aria-hidden="true">;</kbd>
          </Button>
        </header>
        <p className="mt-2">
          {begun && last
            ? `${dayIn(begun, timeZone)} to ${dayIn(last, timeZone)}: ${evenings === 1 ? "one evening" : `${evenings} evenings`}, ${hours} hours of hands on as timed, by ${painters.join(", ")}.`
            : "Nothing has been laid yet. What is done at the bench is written here by itself."}
        </p>
        {trials.length > 0 && (
          <p className="mt-1 text-soft">
            Decided on a tile:{" "}
            {trials.map((t, i) => (
              <span key={t.id}>
                {i > 0 && "; "}
                {t.zone} by{" "}
                <Link to={`/trials/${setId}/${t.id}`} className="underline">
                  {t.name}
                </Link>
              </span>
            ))}
          </p>
        )}
        {designs.map((d) => (
          <section key={d.id} aria-label={d.name} className="mt-5">
            <h2 className="border-b border-line text-base font-semibold">
              {d.name} <span className="text-xs font-normal text-soft">{plural(d.pieces, "piece")}</span>
            </h2>
            {d.zones.map((z) => {
              const zone = cores[zones.indexOf(z)]!.data!;
              return <Zone key={z.id} name={z.name} of={d.name} layers={asDone(zone)} told={differs(zone)} />;
            })}
          </section>
        ))}
        {pots.length > 0 && (
          <section aria-labelledby="record-pots" className="mt-6 break-inside-avoid">
            <h2 id="record-pots" className="border-b border-line text-base font-semibold">
              Pots, as they were really mixed
            </h2>
            <ul>
              {pots.map((p) => (
                <li key={p.id} className="break-inside-avoid border-b border-line/60 py-1">
                  <b>{p.label}</b>: {p.parts.map(partWords).join(" + ")}.{" "}
                  <span className="text-xs text-soft">
                    {dayIn(p.madeAt, timeZone)}, {p.painter}; on {p.zones.join("; ")}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        )}
        {!!photos.data?.photos.length && (
          <section aria-labelledby="record-photos" className="mt-6">
            <h2 id="record-photos" className="border-b border-line text-base font-semibold">
              Photographs
            </h2>
            <ul className="mt-2 grid grid-cols-3 gap-3 max-sm:grid-cols-2">
              {photos.data.photos.map((p) => (
                <li key={p.id} className="break-inside-avoid text-xs">
                  <img
                    src={`/api/log/${setId}/photos/${p.id}/small.jpg`}
                    alt={p.words || `Photograph of ${p.piece || p.zone || name}`}
                    className="w-full rounded-[2px] border border-line"
                  />
                  {[p.words, p.piece, dayIn(p.takenAt, timeZone)].filter(Boolean).join(" · ")}
                </li>
              ))}
            </ul>
          </section>
        )}
        <p className="mt-6 text-xs text-soft">
          Colours are predicted from what is really there: estimates. Deviations are told with the pieces they
          are on.
        </p>
      </article>
    </div>
  );
}

const partWords = (p: Schema["RecordPart"]) =>
  p.drops === null ? `${p.name} ${ml(p.ml)}` : `${p.name} ${plural(p.drops, "drop")}`;

function Zone(props: {
  name: string;
  of: string;
  layers: readonly Done[];
  told: ReturnType<typeof differs>;
}) {
  const { told } = props;
  return (
    <section aria-label={`${props.name}, ${props.of}`} className="mt-2 break-inside-avoid">
      <h3 className="font-semibold">{props.name}</h3>
      {props.layers.length === 0 ? (
        <p className="text-xs text-soft">Nothing is laid here yet.</p>
      ) : (
        <ol>
          {props.layers.map((l) => (
            <li key={l.id} className="flex flex-wrap items-center gap-x-2 border-b border-line/40 py-0.5">
              <span className="w-5 text-right text-xs text-soft">{l.number ?? "+"}</span>
              <Hatch technique={l.technique} />
              {l.colour && <Swatch colour={l.colour} name="" className="size-3.5 shrink-0" />}
              <span>
                <b>{l.technique}</b> {l.paint}
              </span>
              <span className="ml-auto text-xs text-soft">
                {labelsOf(l.on)}
                {l.pots.length > 0 && `, from ${l.pots.join(", ")}`}
              </span>
            </li>
          ))}
        </ol>
      )}
      {told.length > 0 && (
        <p className="text-xs text-soft">{told.map((d) => `${labelsOf(d.on)}: ${d.words}`).join("; ")}.</p>
      )}
    </section>
  );
}
