import { describe, expect, it } from "vitest";
import type { Refusal, Schema } from "../../api/client";
import {
  begin,
  isDue,
  isUnstored,
  saving,
  stackAfter,
  type StackAction,
  type StackState,
} from "./stackState";
import type { Layer } from "./stack";

const layer = (id: string, coats = 1) => ({ id, coats, note: "" }) as unknown as Layer;
const [a, b, c] = [layer("a"), layer("b"), layer("c")];
const sheet = (revision: number, layers: Layer[]) =>
  ({ version: revision * 10, revision, layers }) as unknown as Schema["ZoneSheet"];
const start = begin(sheet(1, [a, b]));
const run = (actions: StackAction[], from: StackState = start) => actions.reduce(stackAfter, from);
let made = 0;
const edit = (layers: Layer[], together?: string): StackAction => ({
  do: "edit",
  layers,
  together,
  step: `s${++made}`,
});
const back: StackAction = { do: "take back" };
const again: StackAction = { do: "give again" };
const send: StackAction = { do: "send", key: "k1" };
const refusal: Refusal = { status: 400, code: "invalid", detail: "No.", errors: [] };
const ids = (layers: Layer[]) => layers.map((l) => l.id + l.coats).join(" ");

describe("editing", () => {
  it("is unstored until it is stored", () => {
    expect(saving(start)).toBe("saved");
    const edited = run([edit([a])]);
    expect([saving(edited), isDue(edited), isUnstored(edited)]).toEqual(["waiting", true, true]);
  });
  it("that changes nothing is nothing", () => {
    expect(run([edit([a, b])])).toBe(start);
  });
  it("back to what is stored needs no storing", () => {
    expect(isDue(run([edit([a]), edit([a, b])]))).toBe(false);
  });
  it("of one thing again and again is one step of undo", () => {
    const turned = run([edit([a, layer("b", 2)], "b.coats"), edit([a, layer("b", 3)], "b.coats")]);
    expect(turned.waiting).toHaveLength(1);
    expect(ids(run([back], turned).layers)).toBe("a1 b1");
  });
  it("of another thing is another step, and so is the same after it was taken back", () => {
    expect(run([edit([a, layer("b", 2)], "b.coats"), edit([a], "removed")]).waiting).toHaveLength(2);
    const s = run([edit([a, layer("b", 2)], "x"), back, edit([a, layer("b", 3)], "x")]);
    expect(s.waiting).toHaveLength(1);
    expect(s.waiting[0]!.step).not.toBe(run([edit([a, layer("b", 2)], "x")]).waiting[0]!.step);
  });
  it("goes back and forth before it is stored, and a new edit ends what could be given again", () => {
    const s = run([edit([a]), edit([a, c]), back, back]);
    expect([ids(s.layers), saving(s)]).toEqual(["a1 b1", "saved"]);
    expect(ids(run([again, again], s).layers)).toBe("a1 c1");
    expect(run([again, edit([b])], s).takenBack).toEqual([]);
    expect(run([back], start)).toBe(start);
  });
  it("that goes on with what is stored already is the same step to the server", () => {
    const first = run([edit([a, layer("b", 2)], "b.coats"), send]);
    const on = run(
      [{ do: "stored", now: sheet(2, [a, layer("b", 2)]) }, edit([a, layer("b", 3)], "b.coats")],
      first,
    );
    expect(on.waiting[0]!.step).toBe(first.sending!.step);
    expect(run([edit([a, layer("b", 3)], "b.other")], first).waiting[0]!.step).not.toBe(first.sending!.step);
  });
});

describe("storing", () => {
  it("holds key, version and layers together until there is an answer", () => {
    const sent = run([edit([a]), send, edit([a, c]), { do: "send", key: "k2" }]);
    expect(sent.sending).toMatchObject({ key: "k1", version: 10, layers: [a] });
    expect(saving(sent)).toBe("saving");
  });
  it("of the newest is done; of an older draft it goes on", () => {
    const done = run([edit([a]), send, { do: "stored", now: sheet(2, [a]) }]);
    expect([saving(done), done.stored.version]).toEqual(["saved", 20]);
    const more = run([edit([a]), send, edit([a, c]), { do: "stored", now: sheet(2, [a]) }]);
    expect([saving(more), isDue(more)]).toEqual(["waiting", true]);
    expect(run([{ do: "send", key: "k2" }], more).sending).toMatchObject({
      key: "k2",
      version: 20,
      layers: [a, c],
    });
  });
  it("is done even where the server words a layer otherwise", () => {
    const worded = { ...a, markMm: null } as unknown as Layer;
    const done = run([edit([a]), send, { do: "stored", now: sheet(2, [worded]) }]);
    expect([saving(done), done.layers[0]]).toEqual(["saved", worded]);
  });
  it("that another window overtook is sent again on top of theirs, or with the version it has by now", () => {
    const over = run([edit([a, b, c]), send, { do: "overtaken", theirs: sheet(2, [layer("a", 5), b]) }]);
    expect([ids(over.layers), isDue(over)]).toEqual(["a5 b1 c1", true]);
    const again = run([edit([a]), send, { do: "overtaken", theirs: { ...sheet(1, [a, b]), version: 99 } }]);
    expect([ids(again.layers), run([send], again).sending!.version]).toEqual(["a1", 99]);
  });
  it("that was refused waits for another edit, and says so", () => {
    const refused = run([edit([a]), send, { do: "refused", why: refusal }]);
    expect([saving(refused), isDue(refused), refused.fault]).toEqual(["failed", false, refusal]);
    expect(isDue(run([edit([a, c])], refused))).toBe(true);
    expect(run([back], refused).fault).toBeNull();
  });
  it("never says stored and not stored at once", () => {
    for (const s of [
      start,
      run([edit([a])]),
      run([edit([a]), send]),
      run([edit([a]), send, { do: "refused", why: refusal }]),
    ])
      expect(saving(s) === "saved").toBe(!isUnstored(s));
  });
});

describe("what another window stored", () => {
  const theirs = sheet(2, [layer("a", 5), b]);
  it("is taken in when nothing was edited here", () => {
    const s = run([{ do: "arrive", theirs }]);
    expect([ids(s.layers), saving(s), s.stored.revision]).toEqual(["a5 b1", "saved", 2]);
  });
  it("lies under the edits made here, which are stored on top of it", () => {
    const s = run([edit([a, b, c]), { do: "arrive", theirs }]);
    expect([ids(s.layers), isDue(s)]).toEqual(["a5 b1 c1", true]);
    expect(run([send], s).sending!.version).toBe(20);
  });
  it("stays when what was done here is undone", () => {
    const s = run([edit([a, b, c]), { do: "arrive", theirs }, back]);
    expect([ids(s.layers), saving(s)]).toEqual(["a5 b1", "saved"]);
  });
  it("that changed the same layer is for the painter to settle; until then nothing is sent", () => {
    const s = run([edit([layer("a", 2), b]), { do: "arrive", theirs }]);
    expect([s.conflict?.theirs, isDue(s), ids(s.layers)]).toEqual([theirs, false, "a2 b1"]);
    const settled = run([{ do: "settle", layers: theirs.layers, own: "o", step: "s" }], s);
    // The own version is stored first, so that it is one undo away.
    expect(settled.waiting.map((w) => ids(w.layers))).toEqual(["a2 b1", "a5 b1"]);
    expect(ids(settled.layers)).toBe("a5 b1");
    const kept = run([{ do: "settle", layers: s.layers, own: "o", step: "s" }], s);
    expect([isDue(kept), run([send], kept).sending!.version]).toEqual([true, 20]);
  });
  it("that equals one's own settles by itself", () => {
    const s = run([edit([layer("a", 5), b]), { do: "arrive", theirs }]);
    expect([s.conflict, saving(s)]).toEqual([null, "saved"]);
  });
  it("waits while something is on its way, and old news is no news", () => {
    const sent = run([edit([a]), send]);
    expect(run([{ do: "arrive", theirs }], sent)).toBe(sent);
    expect(run([{ do: "arrive", theirs: sheet(1, [c]) }])).toBe(start);
    const newer = run([{ do: "arrive", theirs: sheet(3, [c]) }]);
    expect(run([{ do: "stored", now: sheet(2, [a]) }], newer).stored.revision).toBe(3);
  });
  it("twice brings each layer once, whatever was edited between", () => {
    let s = start;
    for (let n = 2; n < 40; n++) {
      s = run(
        [
          edit([...s.layers, layer(`m${n}`)]),
          { do: "arrive", theirs: sheet(n, [...s.stored.layers, layer(`t${n}`)]) },
        ],
        s,
      );
      expect(new Set(s.layers.map((l) => l.id)).size).toBe(s.layers.length);
    }
    expect(s.layers).toHaveLength(2 + 38 * 2);
    expect(s.conflict).toBeNull();
  });
});
