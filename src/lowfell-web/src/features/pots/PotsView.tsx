import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { hindered } from "../../api/hindered";
import { useParams, useSearchParams } from "react-router";
import type { Schema } from "../../api/client";
import { materialsQuery, overviewQuery } from "../../api/queries";
import { useCommands } from "../../kit/keys";
import { Tabs } from "../../kit/Tabs";
import { NotHere } from "../../kit/NotHere";
import { Trouble } from "../../kit/Trouble";
import { Amounts } from "./Amounts";
import { MixBench } from "./MixBench";
import { MixCards } from "./MixCards";
import { PotBench } from "./PotBench";
import { PotList } from "./PotList";
import { inListOrder, stepFrom, type Chosen, type Draft, type Reading } from "./pots";
import { potsQuery } from "./queries";

const tabs = [
  { value: "pots", text: "Mixes and pots" },
  { value: "amounts", text: "Amounts" },
  { value: "cards", text: "Mix cards" },
] as const;

/** The mixes a set calls for and the pots there are: the chosen one as a jar, with everything that is predicted of it. */
export function Component() {
  const { setId = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const [pages, setPages] = useState(1);
  const pots = useQuery(potsQuery(setId, pages));
  const overview = useQuery(overviewQuery(setId));
  const materials = useQuery({
    ...materialsQuery(overview.data?.workshopId ?? ""),
    enabled: !!overview.data,
  });
  const tab = tabs.find((t) => t.value === params.get("tab"))?.value ?? "pots";
  const error = hindered(pots, overview, materials);
  useCommands("Pots", [], { view: true, ready: !!error || (!!pots.data && !!materials.data) });
  if (error)
    return (
      <Trouble
        error={error}
        retry={() => {
          void pots.refetch();
          void overview.refetch();
          void materials.refetch();
        }}
      />
    );
  if (!pots.data || !materials.data) return <p className="p-6 text-soft">Looking through the pots…</p>;
  const { data: reading } = pots;
  const { data: shelf } = materials;
  const body = (shown: (typeof tabs)[number]["value"]) =>
    shown === "amounts" ? (
      <Amounts setId={setId} />
    ) : shown === "cards" ? (
      <MixCards reading={reading} />
    ) : (
      <Bench setId={setId} reading={reading} materials={shelf} onMore={() => setPages(pages + 1)} />
    );
  return (
    <div className="flex h-full min-h-0 flex-col max-md:overflow-y-auto">
      <div className="no-print flex items-center gap-3 border-b border-line px-5 py-1.5">
        <h1 className="text-lg font-semibold">Pots</h1>
      </div>
      <Tabs
        label="What to look at"
        className="flex min-h-0 flex-1 flex-col px-5 data-[orientation]:pt-1"
        value={tab}
        onChange={(value) => setParams(value === "pots" ? {} : { tab: value }, { replace: true })}
        tabs={tabs.map((t) => ({ ...t, body: () => body(t.value) }))}
      />
    </div>
  );
}

function Bench(props: {
  setId: string;
  reading: Reading;
  materials: Schema["MaterialCard"][];
  onMore: () => void;
}) {
  const { setId, reading, materials } = props;
  const [params, setParams] = useSearchParams();
  const [remix, setRemix] = useState<Draft | null>(null);
  const pot = reading.pots.find((p) => p.id === params.get("pot"));
  const named = reading.mixes.find((m) => m.recipeKey === params.get("mix"));
  // A pot further back than what was read may still be there.
  const lost =
    !pot && !named && (params.get("mix") !== null || (params.get("pot") !== null && !reading.more));
  const mix =
    named ??
    (params.get("free") === null
      ? (reading.mixes.find((m) => m.needsMixing) ?? reading.mixes[0])
      : undefined);
  const choose = (chosen: Chosen) => {
    setRemix(null);
    setParams("pot" in chosen ? { pot: chosen.pot } : "mix" in chosen ? { mix: chosen.mix } : { free: "" }, {
      replace: true,
    });
  };
  const go = (by: number) => {
    const next = stepFrom(inListOrder(reading), { pot: pot?.id, mix: mix?.recipeKey }, by);
    if (next) choose(next);
  };
  useCommands("Among the pots", [
    { id: "pots next", key: "ArrowDown", says: "next mix or pot", run: () => go(1) },
    { id: "pots before", key: "ArrowUp", says: "mix or pot before", run: () => go(-1) },
  ]);
  return (
    <div className="min-h-0 flex-1 md:grid md:h-full md:grid-cols-[236px_minmax(0,1fr)]">
      <PotList
        reading={reading}
        potId={pot?.id}
        mixKey={pot ? undefined : mix?.recipeKey}
        onPot={(id) => choose({ pot: id })}
        onMix={(key) => choose({ mix: key })}
        onFree={() => choose({ free: true })}
        onMore={props.onMore}
      />
      {lost ? (
        <NotHere
          what="This set has no such pot or mix. The plan may call for another one now."
          to={`/pots/${setId}`}
          words="Show what the plan wants mixed"
        />
      ) : pot ? (
        <PotBench
          key={pot.id}
          setId={setId}
          pot={pot}
          reading={reading}
          materials={materials}
          onRemix={(draft) => {
            setParams({ free: "" });
            setRemix(draft);
          }}
          onPot={(id) => choose({ pot: id })}
        />
      ) : (
        <MixBench
          key={remix ? "remix" : (mix?.recipeKey ?? "free")}
          setId={setId}
          mix={remix ? undefined : mix}
          start={remix ?? undefined}
          reading={reading}
          materials={materials}
          onMade={(id) => choose({ pot: id })}
        />
      )}
    </div>
  );
}
