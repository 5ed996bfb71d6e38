import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, type Schema } from "../../api/client";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Later } from "../../kit/Later";
import { inAddress, putInAddress } from "../../kit/address";
import { useCommands } from "../../kit/keys";
import { useSay } from "../../kit/Toast";
import { useTypingOver } from "../../kit/useTypingOver";
import { useChange } from "../../shared/useChange";
import { ConflictDialog } from "./ConflictDialog";
import { HeldStrip } from "./HeldStrip";
import { Leaders } from "./Leaders";
import { LeftOut } from "./LeftOut";
import { SectionPanel } from "./SectionPanel";
import { StackColumn } from "./StackColumn";
import { StackSays } from "./StackSays";
import type { Progress } from "./HalfDone";
import { useCalm } from "./useCalm";
import { blank } from "./blank";
import { partOf } from "./parts";
import { faces } from "./faces";
import { leftOut, moved, putAbove, without } from "./moves";
import { apply, type Edit, type Layer } from "./stack";
import type { Material, Sheet, Tab, TechniqueInfo } from "./types";
import { TreatmentLine } from "./TreatmentLine";
import { useKnown } from "./useKnown";
import { useShared } from "./useShared";
import { useStack } from "./useStack";

const zoneMeasures = () => import("./ZoneMeasures").then((m) => m.default);

type Props = {
  tab: Tab;
  onTab: (tab: Tab) => void;
  sheet: Sheet;
  overview: Schema["PlanOverview"];
  materials: Material[];
  techniques: TechniqueInfo[];
};

/** One zone: its section, its stack, its remarks and amounts. */
export function ZoneBench({ tab, onTab, sheet, overview, materials, techniques }: Props) {
  const stack = useStack(sheet, overview.workshopId);
  const { layers, reading } = stack;
  const { edit, question, said: whom } = useShared(sheet, stack);
  const [change] = useChange(overview.workshopId);
  const asksNow = useTypingOver(!!stack.conflict);
  const said = useCalm(useMemo(() => ({ layers, reading }), [layers, reading]));
  const say = useSay();
  // The address may name a layer; it is the one in hand then, and in sight.
  const [named] = useState(() => inAddress("layer"));
  const [selected, setSelected] = useState<string | null>(
    () => (layers.find((l) => l.id === named) ?? layers.at(-1))?.id ?? null,
  );
  useEffect(() => {
    if (!named) return;
    const row = document.querySelector(`[data-row="${CSS.escape(named)}"]`);
    if (row) row.scrollIntoView({ block: "center" });
    else say("The layer that the address names is not in this stack.", true);
  }, [named, say]);
  useEffect(
    () => putInAddress({ layer: selected === layers.at(-1)?.id ? null : selected }),
    [selected, layers],
  );
  const [editing, setEditing] = useState<string | null>(null);
  const [peel, setPeel] = useState(0);
  const [newestOnTop, setNewestOnTop] = useState(() => localStorage.getItem("lowfell.order") !== "first");
  const [measures, setMeasures] = useState(false);
  const [before, setBefore] = useState(false);
  const [part, setPart] = useState<string | null>(null);
  const lookedAt = useMemo(() => partOf(reading, part), [reading, part]);
  const [frame, setFrame] = useState<HTMLDivElement | null>(null);
  const open = useMemo(() => reading.findings.filter((f) => !f.accepted), [reading.findings]);
  const tied = useMemo(() => said.reading.findings.filter((f) => !f.accepted), [said]);
  const byId = useKnown(layers, materials, overview.workshopId);
  const shown = Math.max(0, layers.length - peel);
  const index = layers.findIndex((l) => l.id === selected);

  const focusRow = (id: string | null) =>
    requestAnimationFrame(() =>
      document.querySelector<HTMLElement>(`[data-row="${id}"] button[data-select]`)?.focus(),
    );

  const { undo } = stack;
  /** Says what a command did, with the way back. */
  const done = useCallback((text: string) => say(text, false, { text: "Undo", run: undo }), [say, undo]);
  const queries = useQueryClient();
  /** After living with a remark, or no longer: nothing in the stack has changed. */
  const reread = () => {
    void stack.preview(stack.current());
    void queries.invalidateQueries({ queryKey: ["overview"] });
    void queries.invalidateQueries({ queryKey: ["remarks"] });
    void queries.invalidateQueries({ queryKey: ["zone", sheet.zone.id], refetchType: "none" });
  };

  const select = useCallback((id: string | null) => setSelected(id), []);

  const applyRemedy = useCallback(
    (edits: readonly Edit[], said?: () => void) => {
      setEditing(null);
      edit(apply(layers, edits), null, false, said);
    },
    [edit, layers],
  );

  const act = {
    add: () => {
      const layer = blank(techniques);
      edit(putAbove(layers, selected, layer), null, false, () => {
        setSelected(layer.id);
        setEditing(layer.id);
        done("Layer added.");
      });
    },
    remove: (id: string) => {
      const rest = without(layers, id);
      edit(rest.layers, null, false, () => {
        setEditing(null);
        setSelected(rest.near);
        focusRow(rest.near);
        done("Layer removed.");
      });
    },
    leaveOut: (id: string) => {
      edit(leftOut(layers, id));
      setEditing(null);
    },
    duplicate: (id: string) => {
      const copy = { ...layers.find((l) => l.id === id)!, id: crypto.randomUUID() };
      edit(putAbove(layers, id, copy), null, false, () => {
        setSelected(copy.id);
        focusRow(copy.id);
        done("Layer duplicated.");
      });
    },
    move: (id: string, by: number) => {
      const next = moved(layers, id, by);
      if (!next) return;
      edit(next, null, false, () => focusRow(id));
    },
    change: (layer: Layer, field: string) =>
      edit(
        stack.current().map((l) => (l.id === layer.id ? layer : l)),
        `${layer.id}.${field}`,
      ),
    /** One figure of a layer while its slider moves. */
    turn: (id: string, change: Partial<Layer>) =>
      edit(
        stack.current().map((l) => (l.id === id ? { ...l, ...change } : l)),
        `${id}.${Object.keys(change).join()}`,
        true,
      ),
    /** Lays a layer over other surfaces of the treatment; what waits to be stored goes first. */
    over: async (stepId: string, over: string[], words: string) => {
      await stack.settled();
      await change(words, (headers) =>
        api.PUT("/api/treatments/{treatmentId}/steps/{stepId}/over", {
          headers,
          params: { path: { treatmentId: sheet.treatmentId, stepId } },
          body: { version: stack.version(), over },
        }),
      );
    },
    order: () =>
      setNewestOnTop((v) => {
        localStorage.setItem("lowfell.order", v ? "first" : "newest");
        return !v;
      }),
  };

  // Rows that do not change are not drawn again, so what they call must stay the same and still act on what is there now.
  const all = { act, preview: stack.preview, edit, focusRow, now: stack.current, applyRemedy, reread, stack };
  const latest = useRef(all);
  useEffect(() => {
    latest.current = all;
  });
  const calls = useMemo(
    () => ({
      onOrder: () => latest.current.act.order(),
      onChange: (layer: Layer, field: string) => latest.current.act.change(layer, field),
      onTurn: (id: string, change: Partial<Layer>) => latest.current.act.turn(id, change),
      onMove: (id: string, by: number) => latest.current.act.move(id, by),
      onRemove: (id: string) => latest.current.act.remove(id),
      onDuplicate: (id: string) => latest.current.act.duplicate(id),
      onPreview: (draft: Layer[]) => void latest.current.preview(draft),
      onReorder: (next: Layer[]) => latest.current.edit(next),
      onOver: (step: string, over: string[], words: string) =>
        void latest.current.act.over(step, over, words),
      focusRow: (id: string | null) => latest.current.focusRow(id),
      onReread: () => void latest.current.preview(latest.current.now()),
      now: () => latest.current.now(),
      onApply: (edits: readonly Edit[]) => latest.current.applyRemedy(edits),
      onLivedWith: () => latest.current.reread(),
      onLeaveOut: (id: string) => latest.current.act.leaveOut(id),
      onProgress: (next: Progress) => latest.current.stack.changeProgress(next),
    }),
    [],
  );

  const firstRemedy = () => {
    const own = open.find((f) => selected && f.layers.includes(selected) && f.remedies.length > 0);
    const finding = own ?? open.find((f) => f.remedies.length > 0);
    if (!finding) return;
    applyRemedy(finding.remedies[0]!.edits, () => done(`Done: ${finding.remedies[0]!.text}.`));
  };
  useCommands(
    "In the stack",
    [
      { id: "stack move", key: "↑ ↓", says: "move between layers" },
      { id: "stack edit", key: "Enter", says: "edit the layer, Escape when done" },
      { id: "stack lift", key: "Alt ↑ ↓", says: "move the layer" },
      { id: "stack add", key: "a", says: "add a layer above", run: () => act.add() },
      {
        id: "stack double",
        key: "d",
        says: "duplicate the layer",
        run: () => selected && act.duplicate(selected),
      },
      { id: "stack remove", key: "Delete", says: "remove the layer" },
      {
        id: "stack peel",
        key: "[",
        says: "peel a layer back",
        run: () => setPeel((p) => Math.min(layers.length, p + 1)),
      },
      {
        id: "stack unpeel",
        key: "]",
        says: "put a layer back",
        run: () => setPeel((p) => Math.max(0, p - 1)),
      },
      {
        id: "stack remedy",
        key: "r",
        says: "apply the first remedy of the layer's remark",
        run: firstRemedy,
      },
      { id: "stack order", key: "o", says: "newest on top, or first to last", run: () => act.order() },
      {
        id: "stack before",
        key: "v",
        says: "before and after the layer, in the section",
        run: () => setBefore((b) => !b),
      },
      { id: "tab remarks", key: "m", says: "what is said of the stack", run: () => onTab("remarks") },
      { id: "tab colour", key: "c", says: "colours of the layer", run: () => onTab("colour") },
      { id: "tab sight", key: "s", says: "what is seen from the table", run: () => onTab("sight") },
      { id: "undo", key: "Ctrl+Z", says: "undo", run: stack.undo },
      { id: "redo", key: "Ctrl+Shift+Z", says: "redo", run: stack.redo },
      { id: "redo too", key: "Ctrl+Y", says: "redo", run: stack.redo },
    ],
    { view: true },
  );

  const zone = sheet.zone;
  const dm2 = (zone.areaCm2 * zone.pieces) / 100;
  return (
    <div
      ref={setFrame}
      className="relative min-h-0 md:grid md:grid-cols-[minmax(0,1fr)_258px] xl:grid-cols-[minmax(0,1fr)_296px]"
    >
      <div className="flex min-h-0 min-w-0 flex-col px-4 pt-2.5 md:pr-7">
        <div className="flex flex-wrap items-baseline gap-x-3 md:flex-nowrap">
          <h1 className="max-w-[260px] shrink-0 truncate text-lg font-semibold">{zone.name}</h1>
          <button
            type="button"
            className="min-h-6 min-w-0 truncate text-left text-xs text-soft underline decoration-dotted underline-offset-2 hover:text-ink"
            aria-haspopup="dialog"
            onClick={() => setMeasures(true)}
          >
            {zone.relief === "smooth" ? "smooth" : `${zone.relief} relief`} · {zone.areaCm2} cm² a piece ·{" "}
            {dm2 < 10 ? Math.round(dm2 * 100) / 100 : Math.round(dm2 * 10) / 10} dm² in the set ·{" "}
            {faces(zone)}
          </button>
          <span className="ml-auto flex shrink-0 items-center gap-1.5">
            <span role="status" className="mr-1 text-xs text-soft" data-save={stack.saving}>
              {stack.saving === "saved"
                ? "Stored"
                : stack.saving === "failed" || stack.held || stack.conflict
                  ? "Not stored"
                  : "Storing…"}
            </span>
            <Button onClick={stack.undo}>Undo</Button>
            <Button onClick={stack.redo}>Redo</Button>
            <Button tone="plain" onClick={act.add}>
              Add layer
            </Button>
          </span>
        </div>
        <TreatmentLine sheet={sheet} workshopId={overview.workshopId} onSettled={stack.settled} />
        {whom}
        <LeftOut sheet={sheet} workshopId={overview.workshopId} onSettled={stack.settled} />
        {stack.fault && (
          <Alert title="Not stored." className="mt-1">
            {stack.fault.message}{" "}
            {stack.saving === "failed" && (
              <button type="button" className="underline" onClick={stack.retry}>
                Try again
              </button>
            )}
          </Alert>
        )}
        <SectionPanel
          zone={zone}
          reading={lookedAt}
          part={part}
          onPart={setPart}
          layers={layers}
          shown={shown}
          peel={peel}
          onPeel={setPeel}
          before={before && index >= 0 ? index : null}
          onBefore={() => setBefore((b) => !b)}
        />
        <StackColumn
          layers={layers}
          reading={lookedAt}
          sheet={sheet}
          workshopId={overview.workshopId}
          materials={materials}
          byId={byId}
          techniques={techniques}
          selected={selected}
          editing={editing}
          peel={peel}
          newestOnTop={newestOnTop}
          onSelect={select}
          onEdit={setEditing}
          {...calls}
          fault={stack.fault?.refusal.errors}
        />
      </div>
      <StackSays
        tab={tab}
        onTab={onTab}
        said={said}
        saving={stack.saving}
        progress={stack.progress}
        sheet={sheet}
        overview={overview}
        materials={materials}
        byId={byId}
        techniques={techniques}
        selected={selected}
        onSelect={select}
        calls={calls}
      />
      {/* They end at remarks, so they are drawn of what the remarks are drawn of. */}
      <Leaders
        frame={frame}
        findings={tab === "remarks" ? tied : none}
        selected={selected}
        revision={said}
        newestOnTop={newestOnTop}
        editing={`${editing}.${tab}`}
      />
      {stack.conflict && asksNow && (
        <ConflictDialog
          base={stack.conflict.base}
          mine={layers}
          theirs={stack.conflict.theirs.layers}
          byId={byId}
          onSettle={(chosen) => {
            setEditing(null);
            stack.settleWith(chosen);
          }}
        />
      )}
      {stack.conflict && !asksNow && <HeldStrip ask="See both">another window changed the same.</HeldStrip>}
      {question}
      {measures && <Later load={zoneMeasures} wanted with={{ sheet, onClose: () => setMeasures(false) }} />}
    </div>
  );
}

const none: Schema["FindingDto"][] = [];
