import { write } from "../../api/writes";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schema } from "../../api/client";
import { Jar } from "../../drawing/Jar";
import { jarSize } from "../../drawing/jar";
import { Button } from "../../kit/Button";
import { Choice } from "../../kit/Field";
import { Key } from "../../kit/Key";
import { useCommands } from "../../kit/keys";
import { useSay } from "../../kit/Toast";
import { AddDialog } from "./AddDialog";
import { GiveDialog } from "./GiveDialog";
import { Coats } from "./JarSays";
import { JoinDialog } from "./JoinDialog";
import { LeftDialog } from "./LeftDialog";
import { SplitDialog } from "./SplitDialog";
import { life, short, vessels, type Draft, type Pot, type Reading } from "./pots";
import { potQuery, useRefresh } from "./queries";
import { RanOut } from "./RanOut";
import { differs } from "../../shared/words";

type Step = "give" | "add" | "split" | "join" | "left" | "out" | null;

/** One pot: what is in it, which pieces got it, everything that happened, and what can happen next. */
export function PotBench(props: {
  setId: string;
  pot: Pot;
  reading: Reading;
  materials: Schema["MaterialCard"][];
  onRemix: (draft: Draft) => void;
  onPot: (id: string) => void;
}) {
  const { setId, pot, materials } = props;
  const [step, setStep] = useState<Step>(null);
  const [now] = useState(() => Date.now());
  const say = useSay();
  const refresh = useRefresh();
  const [pages, setPages] = useState(1);
  const history = useQuery(potQuery(setId, pot.id, pages));
  const has = pot.ml > 0;
  const left = life(pot, now);
  useCommands("At the pot", [
    ...(has
      ? [{ id: "pot give", key: "g", says: "give the pot to pieces", run: () => setStep("give") }]
      : []),
    { id: "pot add", key: "u", says: "top up or thin the pot", run: () => setStep("add") },
    { id: "pot out", key: "x", says: "the pot ran out", run: () => setStep("out") },
  ]);
  const run = async (call: () => Promise<Pot>, done: (pot: Pot) => string) => {
    try {
      say(done(await call()));
    } catch (error) {
      if (error instanceof Refused) say(error.message, true);
    }
    await refresh();
  };
  const path = { setId, id: pot.id };
  const seen = { id: crypto.randomUUID() as string, version: pot.version };
  const close = () => setStep(null);
  const dialog = { setId, pot, onClose: close };
  const colours = new Map(materials.map((m) => [m.id, m]));
  return (
    <div className="min-h-0 px-5 py-3 max-md:px-0 md:overflow-y-auto">
      <div className="flex flex-wrap items-start gap-2">
        <div className="min-w-0 flex-1">
          <h2 className="text-base font-semibold">{pot.label}</h2>
          <p className="text-xs">
            <b data-left>{has ? `${short(pot.ml)} ml` : "Empty"}</b>
            {has && ` of ${short(pot.madeMl)} ml, ${pot.dilution}`}
            {has && (
              <span className={left.over ? "font-semibold text-signal" : "text-soft"}>
                {" "}
                · {left.over && <span aria-hidden="true">▲ </span>}
                {left.says} <i>est.</i>
              </span>
            )}
          </p>
          {pot.note && <p className="text-xs text-soft">“{pot.note}”</p>}
          {pot.offRecipe !== null && pot.offRecipe >= 1 && (
            <p className="mt-1 border-l-[3px] border-amber bg-amber-wash px-2 py-1 text-xs">
              <span aria-hidden="true">▲ </span>
              Off its recipe on a card, {differs(pot.offRecipe)}: what is painted from it will not match the
              plan.
            </p>
          )}
        </div>
        <Button tone="go" disabled={!has} aria-haspopup="dialog" onClick={() => setStep("give")}>
          Give to pieces… <Key>g</Key>
        </Button>
        <Button tone="plain" aria-haspopup="dialog" onClick={() => setStep("add")}>
          Top up or thin… <Key>u</Key>
        </Button>
        <Button tone="plain" onClick={() => setStep("out")}>
          It ran out… <Key>x</Key>
        </Button>
      </div>
      <div className="mt-3 grid grid-cols-1 gap-5 xl:grid-cols-[minmax(0,1fr)_270px]">
        <div className="min-w-0">
          <div className="flex gap-4">
            <Jar
              title={has ? pot.contents.map((c) => `${short(c.ml)} ml ${c.name}`).join(", ") : "empty"}
              fullMl={jarSize(Math.max(pot.madeMl, pot.ml, 0.5))}
              parts={pot.contents.map((c) => {
                const m = colours.get(c.materialId);
                return {
                  name: c.name,
                  ml: c.ml,
                  colour: m?.colour ?? m?.drawdowns[2]?.overWhite ?? "#f4f4f2",
                  thinner: m?.kind === "thinner",
                };
              })}
            />
            <div className="min-w-0 flex-1">
              <div className="flex flex-wrap items-end gap-2">
                <div className="w-[116px]">
                  <Choice
                    label="Kept in"
                    value={pot.vessel}
                    options={vessels}
                    onChange={(vessel) =>
                      void run(
                        () =>
                          write((headers) =>
                            api.POST("/api/pots/{setId}/{id}/move", {
                              headers,
                              params: { path },
                              body: { ...seen, vessel },
                            }),
                          ),
                        (p) => `${p.label} is in the ${p.vessel} now; ${life(p, Date.now()).says}.`,
                      )
                    }
                  />
                </div>
                <Button
                  className="h-[30px]"
                  disabled={!has}
                  aria-haspopup="dialog"
                  onClick={() => setStep("split")}
                >
                  Split…
                </Button>
                <Button
                  className="h-[30px]"
                  disabled={!props.reading.pots.some((p) => p.id !== pot.id && p.ml > 0)}
                  aria-haspopup="dialog"
                  onClick={() => setStep("join")}
                >
                  Pour another in…
                </Button>
                <Button
                  className="h-[30px]"
                  disabled={!has}
                  aria-haspopup="dialog"
                  onClick={() => setStep("left")}
                >
                  What is left…
                </Button>
              </div>
              <Pieces pot={pot} />
            </div>
          </div>
          {step === "out" && <RanOut {...dialog} reading={props.reading} onRemix={props.onRemix} />}
          <h3 className="mt-3 text-sm font-semibold">What happened to it</h3>
          <ul aria-label="What happened, newest first" className="text-xs">
            {history.data?.events.map((e) => (
              <li
                key={e.id}
                data-event={e.kind}
                className={`flex items-start gap-3 border-t border-line py-1 ${e.takenBack ? "text-soft line-through" : ""}`}
              >
                <span className="w-[92px] shrink-0 text-soft">
                  {new Date(e.at).toLocaleString("en-GB", {
                    day: "numeric",
                    month: "short",
                    hour: "2-digit",
                    minute: "2-digit",
                  })}
                </span>
                <span className="w-[74px] shrink-0">{e.kind}</span>
                <span className="min-w-0 flex-1">
                  {e.where && `${e.where}: ${e.pieces.join(", ")}. `}
                  {e.otherPot && `${e.otherPot}. `}
                  <span className="text-soft">
                    {e.amounts
                      .map(
                        (a) =>
                          `${a.ml < 0 ? "−" : ""}${short(Math.abs(a.ml))} ml ${a.name}${a.drops ? ` (${a.drops} drops)` : ""}`,
                      )
                      .join(", ")}
                    {e.note && ` “${e.note}”`}
                  </span>
                </span>
                {e.canTakeBack && (
                  <button
                    type="button"
                    className="min-h-6 underline"
                    onClick={() =>
                      void run(
                        () =>
                          write((headers) =>
                            api.POST("/api/pots/{setId}/{id}/events/{eventId}/take-back", {
                              headers,
                              params: { path: { ...path, eventId: e.id } },
                              body: seen,
                            }),
                          ),
                        () => "Taken back.",
                      )
                    }
                  >
                    Take back
                  </button>
                )}
              </li>
            ))}
          </ul>
          {history.data?.more && (
            <Button onClick={() => setPages(pages + 1)}>Show what happened before</Button>
          )}
        </div>
        <aside aria-label="What is predicted" className="max-w-[420px] text-xs">
          <Coats drawdowns={pot.drawdowns} />
          <p className="mt-1 text-soft">
            {has ? "Predicted" : "As it was, predicted"}: brushed over black and white.
          </p>
        </aside>
      </div>
      {step === "give" && <GiveDialog {...dialog} reading={props.reading} />}
      {step === "add" && <AddDialog {...dialog} materials={materials} />}
      {step === "split" && (
        <SplitDialog {...dialog} taken={props.reading.pots.map((p) => p.label)} onPot={props.onPot} />
      )}
      {step === "join" && (
        <JoinDialog {...dialog} others={props.reading.pots.filter((p) => p.id !== pot.id && p.ml > 0)} />
      )}
      {step === "left" && <LeftDialog {...dialog} />}
    </div>
  );
}

/** Which pieces got it, by where. */
function Pieces({ pot }: { pot: Pot }) {
  const places = [...new Map(pot.pieces.map((p) => [p.zoneId + p.layerId, p.zone])).entries()];
  if (places.length === 0) return <p className="mt-3 text-xs text-soft">No piece has it yet.</p>;
  return (
    <dl className="mt-3 text-xs" aria-label="Pieces that got it">
      {places.map(([key, zone]) => (
        <div key={key} className="border-t border-line py-1">
          <dt className="text-soft">{zone}</dt>
          <dd className="font-semibold">
            {pot.pieces
              .filter((p) => p.zoneId + p.layerId === key)
              .map((p) => p.label)
              .join(", ")}
          </dd>
        </div>
      ))}
    </dl>
  );
}
