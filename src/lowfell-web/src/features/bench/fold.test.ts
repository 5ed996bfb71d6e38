import { describe, expect, it } from "vitest";
import { doorWords, edgesPassed } from "./alerts";
import { doors, fold, leftRunning, rows } from "./fold";
import { labelsOf } from "../../shared/labels";
import { mixWords } from "./says";
import type { BenchEvent, Piece, Reading, Task } from "./types";

const at = (minutes: number) => new Date(Date.UTC(2026, 10, 26, 20, minutes)).toISOString();
const piece = (n: number): Piece => ({
  id: `w${n}`,
  label: `W${n}`,
  state: "open",
  begunAt: null,
  planned: "",
  coats: 0,
});
const task = (layerId: string, pieces: Piece[]) =>
  ({
    zoneId: "z",
    layerId,
    technique: "pin wash",
    zone: "Brick field",
    design: "Lock-wall straight",
    colour: "#403020",
    beforehand: false,
    minutesEach: 3,
    wetMinutes: 40,
    readyMinutes: 600,
    window: { what: "clean up excess", opensMinutes: 15, closesMinutes: 90 },
    pieces,
  }) as unknown as Task;
const reading = (more: Partial<Reading> = {}) =>
  ({
    lastNumber: 4,
    tasks: [task("a", [1, 2, 3].map(piece))],
    wet: [],
    steps: [],
    ...more,
  }) as unknown as Reading;
const event = (
  number: number,
  kind: BenchEvent["kind"],
  pieces: number[],
  more: Partial<BenchEvent> = {},
): BenchEvent => ({
  id: `e${number}`,
  number,
  kind,
  toldAt: at(number),
  zoneId: "z",
  layerId: "a",
  pieceIds: pieces.map((n) => `w${n}`),
  ...more,
});

const drops = (materialId: string, count: number) => ({ materialId, drops: count, ml: null });

describe("the bench with what is on its way", () => {
  it("has a pot that was mixed here, and more in it once it is topped up", () => {
    const mix = {
      key: "brown",
      parts: [{ materialId: "m", unitMl: 0.05 }],
      pots: [],
    } as unknown as Task["mix"];
    const told = [
      event(5, "made", [], { potId: "p", label: "Brown", recipeKey: "brown", amounts: [drops("m", 40)] }),
      event(6, "topped up", [], { potId: "p", amounts: [drops("m", 20)] }),
    ];
    const at = (n: number) => fold(reading({ tasks: [{ ...task("a", [piece(1)]), mix }] }), told.slice(0, n));
    expect(at(1).tasks[0]!.mix!.pots).toEqual([{ id: "p", label: "Brown", ml: 2 }]);
    expect(at(2).tasks[0]!.mix!.pots[0]!.ml).toBe(3);
    expect(at(2).steps.map((s) => s.words)).toEqual(["a pot", "Brown"]);
  });

  it("leaves to the server what the server knows", () => {
    expect(fold(reading(), [event(4, "given", [1])]).tasks[0]!.pieces).toHaveLength(3);
  });

  it("has what was laid on the line, by the server's clock", () => {
    const { tasks, wet } = fold(reading(), [
      event(5, "begun", [1, 2, 3]),
      event(6, "given", [1, 2], { offsetMs: -7 * 60_000 }),
    ]);
    expect(tasks[0]!.pieces.map((p) => `${p.label} ${p.state}`)).toEqual(["W3 begun"]);
    expect(wet.map((w) => [w.piece, w.doneAt, w.touchAt, w.opensAt, w.closesAt])).toEqual(
      ["W1", "W2"].map((w) => [w, at(-1), at(39), at(14), at(89)]),
    );
    expect(fold(reading(), [event(5, "given", [1, 2, 3])]).tasks).toEqual([]);
  });

  it("takes back, wipes, skips and pauses", () => {
    const given = event(5, "given", [1, 2]);
    const back = event(6, "taken back", [], { undoesId: "e5" });
    expect(fold(reading(), [given, back])).toMatchObject({ wet: [], steps: [] });
    const wiped = fold(reading(), [given, event(6, "wiped", [1])]);
    expect(wiped.wet.map((w) => w.piece)).toEqual(["W2"]);
    expect(wiped.tasks[0]!.pieces.map((p) => p.label)).toEqual(["W1", "W3"]);
    const rest = fold(reading(), [event(5, "skipped", [3]), event(6, "begun", [1]), event(7, "paused", [1])]);
    expect(rest.tasks[0]!.pieces.map((p) => `${p.label} ${p.state}`)).toEqual(["W1 paused", "W2 open"]);
    expect(rest.steps.map((s) => s.kind)).toEqual(["paused", "begun", "skipped"]);
  });

  it("counts an event once that is answered for and still in the queue", () => {
    expect(fold(reading(), [event(5, "given", [1]), event(5, "given", [1])]).wet).toHaveLength(1);
  });
});

describe("a layer over several zones", () => {
  const at = (zoneId: string) => ({ zoneId, layerId: `${zoneId} line` });
  const also = (zoneId: string) => ({ ...at(zoneId), zone: zoneId, colour: "#111111", different: "" });
  const over = { ...task("a", [1, 2].map(piece)), also: [also("coping"), also("iron")] };
  const zonesOfTask = (t: Task) => [t.zone, ...t.also.map((a) => a.zone)].join(" ");
  const told = (more: Partial<BenchEvent>) =>
    fold(reading({ tasks: [over] }), [event(5, "given", [1], more)]);

  it("is done on all of them, and wet on all of them in one row", () => {
    const { tasks, wet } = told({ also: [at("coping"), at("iron")] });
    expect(tasks.map((t) => t.pieces.map((p) => p.label))).toEqual([["W2"]]);
    expect(wet.map((w) => w.zone)).toEqual(["Brick field", "coping", "iron"]);
    expect(rows(wet).map((r) => [r.zone, r.pieces])).toEqual([["Brick field, coping, iron", ["W1"]]]);
  });

  it("stays to do where it was taken out, on the pieces that were told", () => {
    const { tasks, wet, steps } = told({ also: [at("coping")] });
    expect(tasks.map((t) => [zonesOfTask(t), t.pieces.map((p) => p.label)])).toEqual([
      ["Brick field coping iron", ["W2"]],
      ["iron", ["W1"]],
    ]);
    expect(wet.map((w) => w.zone)).toEqual(["Brick field", "coping"]);
    expect(steps[0]!.words).toBe("Brick field, coping on Lock-wall straight, W1");
  });

  it("is taken back on all of them", () => {
    const given = event(5, "given", [1], { also: [at("coping"), at("iron")] });
    const { tasks, wet } = fold(reading({ tasks: [over] }), [
      given,
      event(6, "taken back", [], { undoesId: "e5" }),
    ]);
    expect([tasks[0]!.pieces.length, wet]).toEqual([2, []]);
  });
});

describe("coats", () => {
  const three = { ...task("a", [1, 2].map(piece)), coats: 3 };
  const coat = (n: number) => event(n, "given", [1], { coats: 1 });

  it("are counted, wet until the next, and all of them make it done", () => {
    const after = (n: number) => fold(reading({ tasks: [three] }), [coat(5), coat(6), coat(7)].slice(0, n));
    expect([1, 2].map((n) => after(n).tasks[0]!.pieces[0])).toMatchObject([
      { label: "W1", coats: 1, state: "partly" },
      { label: "W1", coats: 2, state: "partly" },
    ]);
    expect(after(1).wet).toMatchObject([{ piece: "W1", closes: null, closesAt: null }]);
    expect(after(3).tasks[0]!.pieces.map((p) => p.label)).toEqual(["W2"]);
    expect(after(3).wet).toMatchObject([{ piece: "W1", eventId: "e7", closes: "clean up excess" }]);
  });

  it("are all there once it is told to be done", () => {
    const bench = fold(reading({ tasks: [three] }), [coat(5), event(6, "given", [1])]);
    expect(bench.tasks[0]!.pieces.map((p) => p.label)).toEqual(["W2"]);
  });
});

describe("the line", () => {
  const bench = fold(reading(), [event(5, "given", [1]), event(7, "given", [2]), event(30, "given", [3])]);

  it("puts together what was laid at about the same time", () => {
    expect(rows(bench.wet).map((r) => r.pieces)).toEqual([["W1", "W2"], ["W3"]]);
  });

  it("shows windows with the nearest first, and one that has closed for a while", () => {
    const open = doors(rows(bench.wet), Date.parse(at(60)));
    expect(open.map((d) => [labelsOf(d.row.pieces), d.opensIn, d.closesIn])).toEqual([
      ["W1, W2", -40, 35],
      ["W3", -15, 60],
    ]);
    expect(doors(rows(bench.wet), Date.parse(at(120)))[0]!.closesIn).toBe(-25);
    expect(doors(rows(bench.wet), Date.parse(at(130)))).toHaveLength(1);
  });

  it("tells each edge as it passes, in words", () => {
    expect(edgesPassed(16, 15)).toEqual([15]);
    expect(edgesPassed(15, 14)).toEqual([]);
    expect(edgesPassed(20, -1)).toEqual([15, 5, 0]);
    const [door] = doors(rows(bench.wet), Date.parse(at(90)));
    expect(doorWords(door!)).toBe("Clean up W1, W2: 5 minutes left.");
    expect(doorWords({ ...door!, closesIn: 0 })).toBe("Too late to clean up W1, W2.");
  });
});

describe("words", () => {
  it("count labels on", () => {
    expect(labelsOf(["W1", "W2", "W3", "W4", "W6", "K1", "K2"])).toBe("W1–W4, W6, K1, K2");
    expect(labelsOf(["lid", "W9", "W10", "W11"])).toBe("lid, W9–W11");
    expect(labelsOf([])).toBe("");
  });

  it("name drops once, and brush-loads where they are", () => {
    const part = (name: string, drops: number, brushLoads = false) => ({
      materialId: name,
      name,
      drops,
      brushLoads,
      unitMl: 0.05,
    });
    const mix = { key: "", words: "", thinned: "", ml: 1, pots: [] };
    expect(mixWords({ ...mix, parts: [part("Wet Slate", 24), part("Tap Water", 12)] })).toBe(
      "24 drops Wet Slate, 12 Tap Water",
    );
    expect(mixWords({ ...mix, parts: [part("Fen Paste", 2, true), part("Tap Water", 3)] })).toBe(
      "2 brush-loads Fen Paste, 3 drops Tap Water",
    );
    expect(mixWords({ ...mix, parts: [part("Slate Undercoat", 19)] })).toBe("straight from the bottle");
  });
});

describe("a timer", () => {
  const begun = [1, 2].map((n): Piece => ({ ...piece(n), state: "begun", begunAt: at(0) }));

  it("counts as it is up to twice the estimate, and asks beyond", () => {
    const of = task("a", begun);
    expect(leftRunning(of, begun, Date.parse(at(12)))).toBeNull();
    expect(leftRunning(of, begun, Date.parse(at(13)))).toBe(13);
    expect(leftRunning(of, [piece(3)], Date.parse(at(300)))).toBeNull();
  });
});
