import { useEffect, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { api } from "../../api/client";
import { hindered } from "../../api/hindered";
import { workAtBench } from "../../kit/bench";
import { role } from "../../kit/role";
import { useCommands } from "../../kit/keys";
import { useSay } from "../../kit/Toast";
import { Trouble } from "../../kit/Trouble";
import { Actions, type Act } from "./Actions";
import { useAlerts } from "./alerts";
import { AlertsDialog } from "./AlertsDialog";
import { ChooseDialog } from "./ChooseDialog";
import { Doors } from "./Doors";
import { doors, leftRunning, rows } from "./fold";
import { labelsOf } from "../../shared/labels";
import { shrink } from "../../shared/photo";
import { Instruction, Nothing } from "./Instruction";
import { Line } from "./Line";
import { MinutesDialog } from "./MinutesDialog";
import { MixDialog } from "./MixDialog";
import { NoteDialog, type NoteKind } from "./NoteDialog";
import { factOf, notReady, type NotReady } from "./ready";
import { keepPage } from "./shellCache";
import { openCamera, TakePhoto } from "./TakePhoto";
import type { Piece, Task, Told } from "./types";
import { after, asFar, coated, labelsWet, onWet, toldOf, touches } from "./zones";
import { useAir } from "./useAir";
import { useAwake } from "./useAwake";
import { useBench } from "./useBench";
import { useNow } from "./useNow";
import { usePedal } from "./usePedal";
import { useTaken } from "./useTaken";
import { WaitingDialog } from "./WaitingDialog";
import { Waits } from "./Waits";
import { WetDialog } from "./WetDialog";

/** One big instruction, what is drying, and a key or a tap for everything that happens. */
export function Component() {
  const { workshopId = "" } = useParams();
  const state = useBench(workshopId);
  useEffect(() => {
    workAtBench(true);
    keepPage();
    return () => workAtBench(false);
  }, []);
  const error = state.known ? null : hindered(state.query);
  useCommands("Bench", [], { view: true, ready: !!error || !!state.bench });
  if (error) return <Trouble error={error} retry={() => void state.query.refetch()} />;
  if (!state.bench) return <p className="p-6 text-soft">Looking at the bench…</p>;
  return <AtWork key={workshopId} workshopId={workshopId} state={state} />;
}

type Open = NoteKind | "choose" | "mix" | "alerts" | "waiting" | null;

function AtWork({ workshopId, state }: { workshopId: string; state: ReturnType<typeof useBench> }) {
  const { reading, away, sentAway } = state.known!;
  const bench = state.bench!;
  const say = useSay();
  const now = useNow();
  // What somebody has begun stays at hand, however the plan is laid out anew by what is done.
  const [chosen, setChosen] = useState<Task | null>(null);
  const [pieceId, setPieceId] = useState<string | null>(null);
  const [potId, setPotId] = useState<string | null>(null);
  const [open, setOpen] = useState<Open>(null);
  const [asks, setAsks] = useState<{
    task: Task;
    pieces: Piece[];
    coats?: number;
    ran: number;
    note: string;
  } | null>(null);
  const [wet, setWet] = useState<{ pieces: Piece[]; coats?: number; below: NotReady[] } | null>(null);
  const [askedWet, setAskedWet] = useState<ReadonlySet<string>>(new Set());

  // From a piece that lags behind: what is missing there is what to do.
  const [search, setSearch] = useSearchParams();
  const [zone, layer] = [search.get("zone"), search.get("layer")];
  useEffect(() => {
    if (!zone || !layer) return;
    api
      .GET("/api/bench/{workshopId}/task", {
        params: { path: { workshopId }, query: { zoneId: zone, layerId: layer } },
      })
      .then(
        ({ data }) => data && setChosen(data),
        () => undefined,
      );
    setSearch({}, { replace: true });
  }, [zone, layer, workshopId, setSearch]);

  const toLay = bench.tasks.filter((t) => !t.beforehand);
  const same = (t: Task) => chosen && t.zoneId === chosen.zoneId && t.layerId === chosen.layerId;
  const task = toLay.find(same) ?? (chosen?.pieces.length ? chosen : null) ?? toLay[0] ?? null;
  const piece = task?.pieces.find((p) => p.id === pieceId) ?? task?.pieces[0] ?? null;
  const next = toLay.find((t) => t !== task && !same(t)) ?? null;
  const [out, turnOut] = useTaken(task);
  const coat = task && piece && task.coats > 1 ? asFar(task, piece) : null;
  const line = rows(bench.wet);
  const closing = doors(line, now);
  const pot = task?.mix?.pots.find((p) => p.id === potId) ?? task?.mix?.pots[0] ?? null;
  useAwake(bench.tasks.some((t) => t.pieces.some((p) => p.state === "begun")));
  useAlerts(closing);
  const air = useAir(workshopId);

  const told = async (told: Told, words: string) => {
    // Work outside of the session is known here alone: it is what it was when it was chosen, less what is told of it.
    if (task && touches(task, told))
      setChosen(
        told.kind === "given" || told.kind === "skipped"
          ? (after(task, told, (p) => (told.kind === "given" ? coated(task, p, told.coats) : null))[0] ??
              null)
          : task,
      );
    await state.tell(told);
    say(words);
  };
  const on = (pieces: Piece[]) => toldOf(task!, out, pieces);
  const give = (pieces: Piece[], note: string, coats?: number, minutes?: number) =>
    told(
      {
        ...on(pieces),
        kind: "given",
        ...(coats ? { coats } : {}),
        ...(pot ? { potId: pot.id } : {}),
        ...(minutes !== undefined ? { minutes } : {}),
        ...(note ? { note } : {}),
      },
      `${task!.technique} on ${labelsOf(pieces.map((p) => p.label))}: ${coats ? `${(pieces[0]!.coats || 0) + coats} of ${task!.coats} coats` : "done"}.`,
    );
  const finish = (pieces: Piece[], note = "", coats?: number) => {
    const ran = leftRunning(task!, pieces, now);
    if (ran === null) void give(pieces, note, coats);
    else setAsks({ task: task!, pieces, ran, note, ...(coats ? { coats } : {}) });
  };
  // Never silently onto wet paint: it is asked once, and the answer is a fact of the log.
  const finishWhereReady = (pieces: Piece[], coats?: number) => {
    const below = notReady(task!, pieces, bench.wet, now, askedWet);
    if (below.length === 0) finish(pieces, "", coats);
    else setWet({ pieces, below, ...(coats ? { coats } : {}) });
  };
  const photograph = async (picture: File) => {
    const eventId = await state.tell({
      kind: "noted",
      note: "photograph",
      ...(task && piece ? on([piece]) : {}),
    });
    say("Photograph taken.");
    await state.photo(task?.setId ?? reading.setId ?? "", eventId, await shrink(picture));
  };
  const back = bench.steps.find((s) => s.mine);
  const takeBack = () => {
    if (back)
      void told({ kind: "taken back", undoesId: back.id }, `Taken back: ${back.kind}, ${back.words}.`);
  };
  const newest = line.at(0) && [...line].sort((a, b) => b.doneAt.localeCompare(a.doneAt))[0]!;
  const wetNow = newest && bench.wet.filter((w) => w.eventId === newest.eventId);

  const acts: Act[] = [
    {
      id: "done",
      key: "d",
      words: piece ? `Done with ${piece.label}` : "Done",
      says: "done with the next piece",
      main: true,
      off: !piece,
      run: () => finishWhereReady([piece!]),
    },
    {
      id: "rest",
      key: "r",
      words: task && task.pieces.length > 1 ? `Done with all ${task.pieces.length}` : "Done with all",
      says: "done with the rest of the batch",
      off: !task || task.pieces.length < 2,
      run: () => finishWhereReady(task!.pieces),
    },
    ...(coat
      ? [
          {
            id: "coat",
            key: ".",
            words: `Coat ${piece!.coats + 1} of ${task!.coats}, ${coat.length > 1 ? `all ${coat.length}` : piece!.label}`,
            says: "one coat of several is on",
            run: () => finishWhereReady(coat, 1),
          },
        ]
      : []),
    piece?.state === "begun"
      ? {
          id: "pause",
          key: "b",
          words: "Pause",
          says: "begin, or pause",
          run: () =>
            void told({ ...on(task!.pieces.filter((p) => p.state === "begun")), kind: "paused" }, "Paused."),
        }
      : {
          id: "begin",
          key: "b",
          words: piece?.state === "paused" ? "Go on" : "Begin",
          says: "begin, or pause",
          off: !piece,
          run: () => void told({ ...on(task!.pieces), kind: "begun" }, "Begun."),
        },
    {
      id: "back",
      key: "u",
      words: "Take back",
      says: "take back what was told last",
      off: !back,
      run: takeBack,
    },
    {
      id: "wiped",
      key: "x",
      words: "Wiped, again",
      says: "wiped off, to be tried again",
      off: !piece,
      run: () => setOpen("wiped"),
    },
    { id: "mishap", key: "m", words: "Mishap", says: "something went wrong", run: () => setOpen("mishap") },
    {
      id: "skip",
      key: "s",
      words: "Skip",
      says: "leave it out on these pieces",
      off: !piece,
      run: () => setOpen("skipped"),
    },
    { id: "note", key: "n", words: "Note", says: "note something", run: () => setOpen("noted") },
    {
      id: "air",
      key: "i",
      words: "Hot air",
      says: "what was laid last saw the dryer",
      off: !wetNow,
      run: () =>
        void told({ kind: "hot air", ...onWet(wetNow!) }, `Hot air on ${labelsOf(labelsWet(wetNow!))}.`),
    },
    {
      id: "dry",
      key: "a",
      words: "Dry now",
      says: "what was laid last is dry to the touch",
      off: !wetNow,
      run: () =>
        void told(
          { kind: "touched dry", ...onWet(wetNow!) },
          `Dry to the touch: ${labelsOf(labelsWet(wetNow!))}.`,
        ),
    },
    {
      id: "photo",
      key: "g",
      words: "Photo",
      says: "a photograph of what is at hand",
      off: !task && !reading.setId,
      run: openCamera,
    },
    {
      id: "mix",
      key: "o",
      words: pot ? "Mixed, topped up" : "Pot mixed",
      says: "a pot as it was really mixed, or topped up",
      off: !task?.mix,
      run: () => setOpen("mix"),
    },
    {
      id: "choose",
      key: "c",
      words: "Other work",
      says: "choose what to work on",
      run: () => setOpen("choose"),
    },
    {
      id: "alerts",
      key: "v",
      words: "Alerts",
      says: "sound, vibration and voice",
      run: () => setOpen("alerts"),
    },
  ];
  useCommands(
    "Bench",
    acts
      .filter((a) => !a.off && (role !== "look" || a.id === "alerts"))
      .map((a) => ({ id: `bench ${a.id}`, key: a.key, says: a.says, run: a.run })),
  );
  usePedal(
    acts.find((a) => a.id === "done")!,
    acts.find((a) => a.id === "back")!,
  );

  const close = () => setOpen(null);
  return (
    <div className="flex min-h-full flex-col gap-3 p-3 md:grid md:h-full md:grid-cols-[minmax(0,1fr)_minmax(280px,34%)] md:grid-rows-[auto_auto_minmax(0,1fr)_auto] md:px-5">
      <Waits
        reading={reading}
        now={now}
        away={away}
        sentAway={sentAway}
        queue={state.waiting}
        air={air}
        onShow={() => setOpen("waiting")}
      />
      <Doors doors={closing} />
      <div className="min-h-0 md:col-start-1 md:row-span-2 md:row-start-2 md:overflow-y-auto">
        {task && piece ? (
          <Instruction
            task={task}
            piece={piece}
            pot={pot}
            next={next}
            prepare={bench.tasks.filter((t) => t.beforehand)}
            now={now}
            out={out}
            onOut={turnOut}
            onPiece={setPieceId}
            onPot={setPotId}
          />
        ) : (
          <Nothing reading={reading} onChoose={() => setOpen("choose")} />
        )}
      </div>
      <Line rows={line} now={now} />
      {role === "look" ? (
        <p className="text-sm text-soft md:col-span-2">
          This device looks on: what happens is told elsewhere.
        </p>
      ) : (
        <Actions acts={acts} />
      )}
      <TakePhoto onTaken={(picture) => void photograph(picture)} />
      {open === "waiting" && (
        <WaitingDialog workshopId={workshopId} state={state.waiting} queue={state.queue} onClose={close} />
      )}
      {open && open !== "choose" && open !== "mix" && open !== "alerts" && open !== "waiting" && (
        <NoteDialog
          kind={open}
          task={task}
          piece={piece}
          wet={bench.wet}
          out={out}
          onClose={close}
          onTell={(t, words) => void told(t, words).then(close)}
        />
      )}
      {open === "choose" && (
        <ChooseDialog
          workshopId={workshopId}
          tasks={toLay}
          others={reading.others}
          onClose={close}
          onChoose={(t) => {
            setChosen(t);
            setPieceId(null);
            close();
          }}
        />
      )}
      {open === "mix" && task?.mix && (
        <MixDialog
          workshopId={workshopId}
          task={task}
          mix={task.mix}
          pot={pot}
          onClose={close}
          onTell={(t, words) => {
            setPotId(t.potId!);
            void told(t, words).then(close);
          }}
        />
      )}
      {open === "alerts" && <AlertsDialog onClose={close} />}
      {wet && (
        <WetDialog
          notReady={wet.below}
          onClose={() => setWet(null)}
          onDone={() => {
            setWet(null);
            setAskedWet(new Set([...askedWet, ...wet.below.flatMap((b) => b.keys)]));
            finish(wet.pieces, factOf(wet.below), wet.coats);
          }}
        />
      )}
      {asks && (
        <MinutesDialog
          {...asks}
          onClose={() => setAsks(null)}
          onSaid={(minutes) => {
            setAsks(null);
            void give(asks.pieces, asks.note, asks.coats, minutes);
          }}
        />
      )}
    </div>
  );
}
