import { useState } from "react";
import { useParams } from "react-router";
import { useQuery } from "@tanstack/react-query";
import { hindered } from "../../api/hindered";
import { overviewQuery } from "../../api/queries";
import { useCommands } from "../../kit/keys";
import { Tabs } from "../../kit/Tabs";
import { Trouble } from "../../kit/Trouble";
import { Finder } from "./Finder";
import { LearnedPanel } from "./LearnedPanel";
import { MishapsPanel } from "./MishapsPanel";
import { Photos } from "./Photos";
import { StoryPanel } from "./StoryPanel";

const tabs = ["story", "photographs", "learned", "mishaps"] as const;
type Tab = (typeof tabs)[number];

/** What happened: by evening and by piece, in pictures, what it teaches, and what went wrong. */
export function Component() {
  const { setId = "" } = useParams();
  const overview = useQuery(overviewQuery(setId));
  const [tab, setTab] = useState<Tab>("story");
  const error = hindered(overview);
  useCommands(
    "Log",
    [
      { id: "log find", key: ";", says: "look through log, shelf and pots", run: () => focusFinder() },
      { id: "log next", key: ".", says: "next page of the log", run: () => setTab(beside(tab, 1)) },
      { id: "log before", key: ",", says: "page before of the log", run: () => setTab(beside(tab, -1)) },
    ],
    { view: true, ready: !!error || !!overview.data },
  );
  if (error) return <Trouble error={error} retry={() => void overview.refetch()} />;
  if (!overview.data) return <p className="p-6 text-soft">Opening the log…</p>;
  const { workshopId, name, designs } = overview.data;
  return (
    <div className="h-full overflow-y-auto px-5 pt-3 pb-8">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <h1 className="text-lg font-semibold">The log of {name}</h1>
        <Finder workshopId={workshopId} setId={setId} />
        <a
          className="inline-flex min-h-6 items-center text-sm underline"
          href={`/api/log/${setId}/log.csv`}
          download={`log ${name}.csv`}
        >
          As CSV
        </a>
        <button type="button" className="no-print min-h-6 text-sm underline" onClick={() => window.print()}>
          Print
        </button>
      </div>
      <Tabs<Tab>
        label="The log"
        className="mt-2"
        value={tab}
        onChange={setTab}
        tabs={[
          {
            value: "story",
            text: "Story",
            body: () => <StoryPanel setId={setId} designs={designs} />,
          },
          {
            value: "photographs",
            text: "Photographs",
            body: () => <Photos setId={setId} workshopId={workshopId} />,
          },
          {
            value: "learned",
            text: "Learned",
            body: () => <LearnedPanel setId={setId} workshopId={workshopId} />,
          },
          { value: "mishaps", text: "Went wrong", body: () => <MishapsPanel setId={setId} /> },
        ]}
      />
    </div>
  );
}

const beside = (tab: Tab, by: number) => tabs[(tabs.indexOf(tab) + by + tabs.length) % tabs.length]!;

const focusFinder = () => document.querySelector<HTMLInputElement>("#look-through")?.focus();
