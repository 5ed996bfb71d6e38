import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { hindered } from "../../api/hindered";
import { useParams } from "react-router";
import { api, take, type Schema } from "../../api/client";
import { overviewQuery } from "../../api/queries";
import { turnAndSay } from "../../api/undo";
import { useCommands } from "../../kit/keys";
import { severities } from "../../kit/severity";
import { useSay } from "../../kit/Toast";
import { Trouble } from "../../kit/Trouble";
import { CareSheet } from "./CareSheet";
import { Group } from "./Group";
import { LargeSet } from "./LargeSet";
import { RemedyDialog } from "./RemedyDialog";

type Chosen = { group: Schema["RemarkGroup"]; remedy: Schema["GroupRemedy"] };

/** Everything to be said of a set, gathered by what to do about it, worst first. */
export function Component() {
  const { setId = "" } = useParams();
  const queries = useQueryClient();
  const say = useSay();
  const overview = useQuery(overviewQuery(setId));
  const remarks = useQuery({
    queryKey: ["remarks", setId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/plan/sets/{setId}/remarks", { params: { path: { setId } }, signal })),
  });
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const refresh = () => {
    void queries.invalidateQueries({ queryKey: ["remarks"] });
    void queries.invalidateQueries({ queryKey: ["overview"] });
    void queries.invalidateQueries({ queryKey: ["zone"] });
  };
  const error = hindered(overview, remarks);
  useCommands("Remarks", [], {
    view: true,
    ready: !!error || (!!overview.data && !!remarks.data),
  });
  if (error)
    return (
      <Trouble
        error={error}
        retry={() => {
          void overview.refetch();
          void remarks.refetch();
        }}
      />
    );
  if (!overview.data || !remarks.data)
    return <p className="p-6 text-soft">Reading every stack of the set…</p>;
  if ("zones" in remarks.data) return <LargeSet setId={setId} zones={remarks.data.zones} />;
  const r = remarks.data;
  const open = r.groups
    .map((g) => ({ ...g, items: g.items.filter((i) => !i.accepted) }))
    .filter((g) => g.items.length > 0);
  const lived = r.groups
    .map((g) => ({ ...g, remedies: [], items: g.items.filter((i) => i.accepted) }))
    .filter((g) => g.items.length > 0);
  const tabs = [
    ["do", "What to do"],
    ["lived", `Lived with${r.accepted > 0 ? ` ${r.accepted}` : ""}`],
    ["care", "Care"],
  ] as const;
  return (
    <Tabs.Root defaultValue="do" className="flex h-full min-h-0 flex-col">
      <div className="flex flex-wrap items-baseline gap-x-5 border-b border-line px-5 pt-3">
        <h1 className="pb-2 text-lg font-semibold">Remarks</h1>
        <p className="flex gap-3 text-xs" data-counts>
          {(["stop", "caution", "hint"] as const).map((s) => (
            <span key={s} className={severities[s].tint}>
              <span aria-hidden="true">{severities[s].sign} </span>
              {countOf(r, s)} {severities[s].word.toLowerCase()}
              {countOf(r, s) === 1 ? "" : "s"}
            </span>
          ))}
        </p>
        <Tabs.List aria-label="What to look at" className="flex sm:ml-4">
          {tabs.map(([key, name]) => (
            <Tabs.Trigger
              key={key}
              value={key}
              className="-mb-px min-h-8 border-b-2 border-transparent px-3 text-sm text-soft data-[state=active]:border-tide data-[state=active]:font-semibold data-[state=active]:text-ink"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
      </div>
      <Tabs.Content value="do" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto px-5 py-3">
        {open.length === 0 && (
          <p className="max-w-xl border-l-[3px] border-line bg-card px-3 py-2">
            {overview.data.designs.length === 0
              ? "Nothing yet: this set has no designs. Add one on the plan."
              : "Nothing against any stack of this set. It should hold."}
          </p>
        )}
        {open.map((g) => (
          <Group
            key={`${g.rule}.${g.title}`}
            group={g}
            setId={setId}
            workshopId={overview.data.workshopId}
            onRemedy={(remedy) => setChosen({ group: g, remedy })}
          />
        ))}
      </Tabs.Content>
      <Tabs.Content value="lived" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto px-5 py-3">
        {lived.length === 0 && (
          <p className="max-w-xl text-soft">
            Nothing is lived with. A remark you decide to live with stands here with its reason, and comes
            back when what it rests on changes.
          </p>
        )}
        {lived.map((g) => (
          <Group key={`${g.rule}.${g.title}`} group={g} setId={setId} workshopId={overview.data.workshopId} />
        ))}
      </Tabs.Content>
      <Tabs.Content value="care" tabIndex={-1} className="min-h-0 flex-1 overflow-y-auto px-5 py-3">
        <CareSheet overview={overview.data} />
      </Tabs.Content>
      {chosen && (
        <RemedyDialog
          setId={setId}
          rule={chosen.group.rule}
          title={chosen.group.title}
          remedy={chosen.remedy}
          onClose={() => setChosen(null)}
          onDone={() => {
            const { workshopId } = overview.data;
            say(`Done: ${chosen.remedy.text}.`, false, {
              text: "Undo",
              run: () => void turnAndSay(workshopId, "undo", say),
            });
            setChosen(null);
            refresh();
          }}
        />
      )}
    </Tabs.Root>
  );
}

const countOf = (r: Schema["RemarksReading"], s: Schema["Severity"]) =>
  s === "stop" ? r.stops : s === "caution" ? r.cautions : r.hints;
