import { expect, it } from "vitest";
import type { Pen } from "../../shared/sheet";
import { drawTray } from "./trueSize";
import type { Tray } from "./types";

it("lays every base at its true size on pages that hold them", () => {
  const rings: { page: number; x: number; y: number; rx: number }[] = [];
  let page = 0;
  const pen: Pen = {
    page: { widthMm: 210, heightMm: 297, marginMm: 12 },
    next: () => page++,
    rect: () => {},
    ellipse: (x, y, rx) => rings.push({ page, x, y, rx }),
    line: () => {},
    path: () => {},
    within: (_, draw) => draw(),
    text: () => {},
  };
  const colours = { raised: "#ffffff", field: "#808080", recess: "#000000" };
  const base = (n: number) => ({
    pieceId: `p${n}`,
    label: `B${n}`,
    elements: [{ kind: "rock", x: 3, y: 0, radiusMm: 2, lengthMm: 0, turn: 0, half: false }],
    textures: ["M0 0L4 0L4 4Z", ""],
    broken: [],
    difference: null,
    byHand: false,
  });
  drawTray(pen, {
    design: "Mud-and-salt base",
    wish: { seed: 7, shape: { outline: "round", widthMm: 60, heightMm: 60 } },
    textures: [{ near: colours }, { near: colours }],
    counts: [],
    bases: Array.from({ length: 24 }, (_, i) => base(i + 1)),
  } as unknown as Tray);
  expect(rings).toHaveLength(24);
  expect(new Set(rings.map((r) => r.page)).size).toBeGreaterThan(1);
  for (const r of rings) {
    expect(r.rx).toBe(30);
    expect(r.x - 30).toBeGreaterThanOrEqual(12);
    expect(r.x + 30).toBeLessThanOrEqual(198);
    expect(r.y + 30).toBeLessThanOrEqual(285);
  }
  for (const [i, a] of rings.entries())
    for (const b of rings.slice(i + 1))
      if (a.page === b.page) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(60);
});
