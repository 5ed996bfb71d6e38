import { describe, expect, it } from "vitest";
import { profile, section } from "./section";

const film = (um: number) => ({ raised: um, field: um, recess: um });
const layer = (id: string, um: ReturnType<typeof film>) =>
  ({ id, filmUm: um, raised: "#aa0000", field: "#00aa00", recess: "#0000aa" }) as unknown as Parameters<
    typeof section
  >[1][number];
const zone = { relief: "deep" as const, raised: 0.2, recess: 0.22 };

describe("the section", () => {
  it("gives recess about its share of the width", () => {
    const samples = profile(zone, 980);
    const width = samples.reduce((sum, s, i) => {
      const next = samples[i + 1];
      return next && s.where === "recess" && next.where === "recess" ? sum + next.x - s.x : sum;
    }, 0);
    const share = width / 980;
    expect(share).toBeGreaterThan(0.17);
    expect(share).toBeLessThan(0.29);
  });
  it.each([
    ["courses", 8, 4],
    ["boards", 3.6, 0],
    ["slates", 4.5, 3.6],
    ["ribs", 1.4, 0],
    ["panels", 21, 14],
    ["links", 2.7, 0],
    ["grain", 0.5, 0],
    ["mesh", 1.1, 0],
  ] as const)("of %s comes to the same, with its parts at their size", (kind, lengthMm, heightMm) => {
    const samples = profile(
      { ...zone, surface: { kind, lengthMm, heightMm, rivetMm: null, across: false } },
      980,
    );
    const width = samples.reduce((sum, s, i) => {
      const next = samples[i + 1];
      return next && s.where === "recess" ? sum + next.x - s.x : sum;
    }, 0);
    expect(width / 980).toBeGreaterThan(0.12);
    expect(width / 980).toBeLessThan(0.4);
    const joints = samples.filter(
      (s, i) => s.where === "recess" && samples[i - 1]?.where !== "recess",
    ).length;
    const parts =
      980 /
      Math.max(26, Math.min(240, (kind === "slates" ? heightMm : kind === "grain" ? 4 : lengthMm) * 24.5));
    expect(Math.abs(joints - parts)).toBeLessThanOrEqual(1.5);
  });
  it("draws one stratum a layer, coloured by position", () => {
    const drawn = section(zone, [layer("a", film(40)), layer("b", film(20))], 700, 150);
    expect(drawn.strata.map((s) => s.id)).toEqual(["a", "b"]);
    expect(new Set(drawn.strata[0]!.runs.map((r) => r.fill))).toEqual(
      new Set(["#aa0000", "#00aa00", "#0000aa"]),
    );
  });
  it("stays inside its frame however thick the films", () => {
    const drawn = section(zone, [layer("a", film(5000)), layer("b", film(9000))], 700, 150);
    const ys = drawn.strata.flatMap((s) =>
      s.outline.match(/-?[\d.]+ (-?[\d.]+)/g)!.map((p) => Number(p.split(" ")[1])),
    );
    expect(Math.min(...ys)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...ys)).toBeLessThanOrEqual(150);
  });
  it("leaves films below a small change where they are", () => {
    const before = section(zone, [layer("a", film(40)), layer("b", film(20))], 700, 150);
    const after = section(zone, [layer("a", film(40)), layer("b", film(20.2))], 700, 150);
    expect(after.strata[0]).toEqual(before.strata[0]);
    expect(after.strata[1]!.outline).not.toEqual(before.strata[1]!.outline);
  });
  it("draws bare ground when there is nothing on it", () => {
    expect(section(zone, [], 700, 150).strata).toEqual([]);
  });
});

describe("a section drawn again", () => {
  // A small generator, so that a failure can be repeated.
  const numbers = (seed: number) => () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648;
  it.each([1, 2, 3, 4, 5])(
    "is what it would be drawn for the first time, whatever went before (%i)",
    (seed) => {
      const next = numbers(seed);
      let layers = Array.from({ length: 8 }, (_, n) => layer(`l${n}`, film(4 + 30 * next())));
      const place = { ...zone };
      for (let step = 0; step < 60; step++) {
        const at = Math.floor(next() * layers.length);
        const what = next();
        if (what < 0.6) layers = layers.map((l, n) => (n === at ? layer(l.id, film(60 * next())) : l));
        else if (what < 0.75) layers = layers.filter((_, n) => n !== at || layers.length < 3);
        else if (what < 0.9)
          layers = [...layers.slice(0, at), layer(`new${step}`, film(20 * next())), ...layers.slice(at)];
        else layers = layers.map((l, n) => (n === at ? { ...l, field: `#0000${step}` } : l));
        expect(section(place, layers, 700, 150)).toEqual(section({ ...place }, layers, 700, 150));
      }
    },
  );
  it("of another size is another drawing", () => {
    const place = { ...zone };
    const layers = [layer("a", film(40))];
    section(place, layers, 700, 150);
    expect(section(place, layers, 300, 90)).toEqual(section({ ...place }, layers, 300, 90));
  });
  it("shows chips as gaps down to what they lay bare, no more of them than their share", () => {
    const share = { raised: 0.3, field: 0.1, recess: 0 };
    const chip = { ...layer("c", film(0)), cover: share, breaksTo: 1 };
    const drawing = section(zone, [layer("a", film(100)), layer("b", film(80)), chip], 980, 240);
    const whole = section(zone, [layer("a", film(100)), layer("b", film(80))], 980, 240);
    const points = (d: string) => d.slice(1).split("L");
    const [a, , c] = drawing.strata.map((s) => points(s.outline));
    const b = points(whole.strata[1]!.outline);
    const gaps = c!.flatMap((p, i) => (p === b[i] ? [] : [i]));
    const samples = profile(zone, 980);
    expect(gaps.length).toBeGreaterThan(2);
    for (const i of gaps) expect(c![i]).toBe(a![i]);
    for (const where of ["raised", "field", "recess"] as const) {
      const all = samples.flatMap((s, i) => (s.where === where ? [i] : []));
      expect(all.filter((i) => gaps.includes(i)).length).toBeLessThanOrEqual(all.length * share[where] + 1);
    }
  });
  it("lays a film with places only there, as thick as it is inside a mark, in its own colour", () => {
    const patch = {
      ...layer("p", film(20)),
      cover: { raised: 0.5, field: 0.25, recess: 0.25 },
      placed: { at: [[200, 400]] as const, fill: "#123456" },
    };
    const under = [layer("a", film(60))];
    const drawn = section(zone, [...under, patch], 700, 200);
    const points = (d: string) =>
      d
        .slice(1)
        .split("L")
        .map((p) => p.split(" ").map(Number));
    const [low, high] = drawn.strata.map((s) => points(s.outline));
    high!.forEach(([x, y], i) => {
      const above = low![i]![1]! - y!;
      // Liquid does not stop at a line: it runs out over the next sample or two.
      if (x! < 200 - 30 || x! > 400 + 30) expect(Math.abs(above)).toBeLessThan(0.6);
      if (x! > 240 && x! < 360) expect(above).toBeGreaterThan(1);
    });
    expect(drawn.strata[1]!.runs.every((r) => r.fill === "#123456")).toBe(true);
    const everywhere = section(zone, [...under, layer("p", film(20))], 700, 200);
    expect(everywhere.strata[1]!.outline).not.toBe(drawn.strata[1]!.outline);
  });
});
