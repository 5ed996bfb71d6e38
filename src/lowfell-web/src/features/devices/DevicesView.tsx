import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, take, type Schema } from "../../api/client";
import { hindered } from "../../api/hindered";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { Trouble } from "../../kit/Trouble";
import { useDoorstep } from "./useDoorstep";
import { airWords, useInstruments } from "../../shared/instruments";
import { AuthorityFacts } from "./AuthorityFacts";
import { Door } from "./Door";
import { KeyDialog } from "./KeyDialog";
import { agoWords, roleWords } from "./says";

const LOOK_MS = 15_000;

/** The bench on a phone or tablet, and instruments: where they come in, who is in, and who is sent away. */
export function Component() {
  const { workshopId = "" } = useParams();
  const devices = useQuery({
    queryKey: ["devices", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/devices/{workshopId}", { params: { path: { workshopId } }, signal })),
  });
  const instruments = useInstruments(workshopId, LOOK_MS);
  const [step, busy] = useDoorstep();
  const [asks, setAsks] = useState<Schema["DeviceRole"] | null>(null);
  const error = hindered(devices);
  useCommands("Other devices", [], { view: true, ready: !!error || !!devices.data });
  if (error) return <Trouble error={error} retry={() => void devices.refetch()} />;
  if (!devices.data) return <p className="p-6 text-soft">Looking who is in…</p>;
  const { data } = devices;
  const inside = data.devices.filter((d) => !d.sentAwayAt);
  const away = data.devices.filter((d) => d.sentAwayAt);
  const sendAway = (d: Schema["DeviceEntry"]) =>
    step(`${d.name} is sent away.`, (headers) =>
      api.DELETE("/api/devices/{workshopId}/{deviceId}", {
        params: { path: { workshopId, deviceId: d.id } },
        headers,
      }),
    );
  return (
    <div className="h-full overflow-y-auto">
      <div className="mx-auto grid max-w-4xl gap-6 px-4 py-5 text-sm sm:px-6">
        <header>
          <h1 className="text-xl font-semibold">Other devices</h1>
          <p className="mt-1 max-w-2xl text-soft">
            The bench on a phone or tablet beside the paint, and instruments that measure. Lowfell itself
            listens on this machine alone; other devices come in encrypted, by a door that is shut until you
            open it, and see nothing but the bench.
          </p>
        </header>
        {data.restoredAt && inside.length === 0 && (
          <p role="status" className="rounded-[4px] border border-amber bg-amber-wash px-4 py-2">
            ▲ A backup was restored {agoWords(data.restoredAt)}. Access is never restored with it: the door
            was shut, and every device has to be taken in again. What devices have not sent is kept on them.
          </p>
        )}
        <Door devices={data} />
        <section aria-labelledby="take-in">
          <h2 id="take-in" className="font-semibold">
            Take a device in
          </h2>
          <p className="mb-2 text-soft">
            {data.openAt
              ? "Each gets a key that works once, within five minutes."
              : "Phones and tablets need the door open first; an instrument on this machine does not."}
          </p>
          <div className="flex flex-wrap gap-2">
            {(["work", "look", "measure"] as const).map((r) => (
              <Button
                key={r}
                tone={r === "work" && data.openAt ? "go" : "quiet"}
                aria-haspopup="dialog"
                disabled={!data.openAt && r !== "measure"}
                onClick={() => setAsks(r)}
              >
                {r === "work" ? "To work with…" : r === "look" ? "To look on only…" : "An instrument…"}
              </Button>
            ))}
          </div>
        </section>
        <section aria-labelledby="inside">
          <h2 id="inside" className="font-semibold">
            Taken in
          </h2>
          {inside.length === 0 ? (
            <p className="text-soft">Nobody yet.</p>
          ) : (
            <ul>
              {inside.map((d) => (
                <li
                  key={d.id}
                  data-device={d.name}
                  className="flex flex-wrap items-baseline gap-x-3 border-b border-line/60 py-1.5"
                >
                  <b className="min-w-0 break-words">{d.name}</b>
                  <span className="text-soft">
                    {roleWords[d.role]}; heard of {d.seenAt ? agoWords(d.seenAt) : "never"}
                  </span>
                  <Button
                    className="ml-auto"
                    disabled={busy}
                    aria-label={`Send ${d.name} away`}
                    onClick={() => void sendAway(d)}
                  >
                    Send away
                  </Button>
                </li>
              ))}
            </ul>
          )}
          {away.length > 0 && (
            <p className="mt-2 text-xs text-soft">Sent away: {away.map((d) => d.name).join(", ")}.</p>
          )}
        </section>
        {instruments && (
          <section aria-labelledby="measured">
            <h2 id="measured" className="font-semibold">
              Measured
            </h2>
            <p>
              {instruments.air.by
                ? `The air: ${airWords(instruments.air)}, by ${instruments.air.by}, ${agoWords(instruments.air.at!)}. What dries follows it.`
                : `The air counts as it was typed: ${airWords(instruments.air)}.`}
            </p>
            {instruments.scale && (
              <p>
                On {instruments.scale.by}: {instruments.scale.grams.toFixed(2)} g
                {instruments.scale.atRest ? "" : ", moving"}.
              </p>
            )}
            {instruments.troubles.map((t) => (
              <p key={`${t.deviceId} ${t.says}`} role="status" className="text-amber">
                ▲ {t.says}
              </p>
            ))}
          </section>
        )}
        <AuthorityFacts devices={data} />
      </div>
      {asks && <KeyDialog workshopId={workshopId} role={asks} onClose={() => setAsks(null)} />}
    </div>
  );
}
