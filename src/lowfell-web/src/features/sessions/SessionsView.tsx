import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { api, take } from "../../api/client";
import { hindered } from "../../api/hindered";
import { useCommands } from "../../kit/keys";
import { Tabs } from "../../kit/Tabs";
import { Trouble } from "../../kit/Trouble";
import { BenchSheet } from "./BenchSheet";
import { Chain } from "./Chain";
import { ChainLine } from "./ChainLine";
import { keyOf, longest, nights, nightWords, type Operation, type Plan } from "./evenings";
import { Evening } from "./Evening";
import { Fit } from "./Fit";
import { Heading } from "./Heading";
import { LateDialog } from "./LateDialog";
import { OperationDialog } from "./OperationDialog";
import { Otherwise } from "./Otherwise";
import { Outlook } from "./Outlook";
import { TakeAlong } from "./TakeAlong";
import { useTimetable } from "./useTimetable";

/** What to do on which evening: hands above, drying below, nights in between, and what binds drawn through it. */
export function Component() {
  const { workshopId = "" } = useParams();
  const plan = useQuery({
    queryKey: ["sessions", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/sessions/{workshopId}", { params: { path: { workshopId } }, signal })),
  });
  const [search] = useSearchParams();
  const error = hindered(plan);
  useCommands("Sessions", [], { view: true, ready: !!error || !!plan.data });
  if (error) return <Trouble error={error} retry={() => void plan.refetch()} />;
  const { data } = plan;
  if (!data) return <p className="p-6 text-soft">Laying out the evenings…</p>;
  const sheet = data.sessions.find((s) => s.start === search.get("sheet"));
  return sheet ? (
    <BenchSheet session={sheet} plan={data} />
  ) : (
    <Evenings workshopId={workshopId} plan={data} />
  );
}

function Evenings({ workshopId, plan }: { workshopId: string; plan: Plan }) {
  const timetable = useTimetable(workshopId, plan);
  const [opened, setOpened] = useState<Operation | null>(null);
  const [late, setLate] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  const widest = longest(plan.sessions);
  const followed = useRef<string | null>(null);
  useEffect(() => {
    if (!followed.current) return;
    box.current?.querySelector<HTMLElement>(`[data-operation="${followed.current}"]`)?.focus();
    followed.current = null;
  }, [plan]);
  return (
    <div className="flex h-full min-h-0 flex-col overflow-y-auto md:grid md:grid-cols-[minmax(0,1fr)_270px] md:overflow-visible">
      <div className="px-5 pt-3 pb-8 md:pane">
        <Heading plan={plan} timetable={timetable} late={() => setLate(true)} />
        <div ref={box} className="relative">
          {plan.sessions.map((s, i) => (
            <div key={s.start}>
              {i > 0 && (
                <p className="mt-2 border-b border-dotted border-line pb-1 text-xs text-soft">
                  {nightWords(nights(plan.sessions[i - 1]!, s))}
                </p>
              )}
              <Evening
                session={s}
                plan={plan}
                timetable={timetable}
                widest={widest}
                open={setOpened}
                follow={(o) => (followed.current = keyOf(o))}
              />
            </div>
          ))}
          <ChainLine over={box} plan={plan} />
        </div>
      </div>
      <Aside workshopId={workshopId} plan={plan} timetable={timetable} />
      {opened && (
        <OperationDialog o={opened} plan={plan} timetable={timetable} onClose={() => setOpened(null)} />
      )}
      {late && <LateDialog workshopId={workshopId} timetable={timetable} onClose={() => setLate(false)} />}
    </div>
  );
}

type Tab = "finish" | "otherwise" | "fit" | "along";

function Aside(props: { workshopId: string; plan: Plan; timetable: ReturnType<typeof useTimetable> }) {
  const { workshopId, plan } = props;
  const [tab, setTab] = useState<Tab>("finish");
  return (
    <aside
      aria-label="What it hangs on"
      className="border-line bg-aside px-3.5 pt-2 pb-6 text-sm max-md:border-t md:pane md:border-l"
    >
      <Tabs<Tab>
        label="What to look at"
        value={tab}
        onChange={setTab}
        tabs={[
          { value: "finish", text: "Finish", body: () => <Finish workshopId={workshopId} plan={plan} /> },
          { value: "otherwise", text: "Otherwise", body: () => <Otherwise {...props} /> },
          { value: "fit", text: "Fit", body: () => <Fit workshopId={workshopId} /> },
          { value: "along", text: "Files", body: () => <TakeAlong {...props} /> },
        ]}
      />
    </aside>
  );
}

function Finish({ workshopId, plan }: { workshopId: string; plan: Plan }) {
  return (
    <>
      <Outlook workshopId={workshopId} />
      <Chain plan={plan} />
      <h2 className="mt-5 text-sm font-semibold">Hours</h2>
      <p>{plan.hours}</p>
      <p className="text-xs text-soft">
        {plan.hoursGuessed ? "A guess, since nobody has said them. " : ""}
        By the clock of {plan.timeZone}.{" "}
        <Link className="underline" to={`/sets/${workshopId}`}>
          Change them in the facts of the workshop
        </Link>
        .
      </p>
      {plan.kept && (
        <p className="mt-3 text-xs text-soft">
          Plan {plan.kept.number}, of {plan.kept.madeAt.slice(0, 10)}: {plan.kept.why}.
        </p>
      )}
    </>
  );
}
