import { ellipseOutline, keepSheet, type Pen } from "../../shared/sheet";
import { blades, stone } from "./figures";
import { halfOf, sizeWords, type Base, type Tray } from "./types";

const GAP_MM = 4,
  LABEL_MM = 5;

/** Every base at its true size, to lay the real one on. */
export const keepTray = (tray: Tray) => keepSheet(tray.design, tray.design, (pen) => drawTray(pen, tray));

export function drawTray(pen: Pen, tray: Tray) {
  const { marginMm: edge, widthMm, heightMm } = pen.page;
  const [hx, hy] = halfOf(tray.wish.shape!);
  let [x, y] = [edge, edge + 14];
  pen.text(tray.design, edge, edge + 4, 5, true);
  pen.text(
    `${tray.bases.length} x ${sizeWords(tray.wish.shape!).replace("×", "x")}, draw ${tray.wish.seed}, true size. Print without fitting to the page.`,
    edge,
    edge + 9,
  );
  for (const base of tray.bases) {
    if (x + 2 * hx > widthMm - edge && x > edge) [x, y] = [edge, y + 2 * hy + LABEL_MM + GAP_MM];
    if (y + 2 * hy + LABEL_MM > heightMm - edge && y > edge + 14) {
      pen.next();
      [x, y] = [edge, edge];
    }
    draw(pen, tray, base, x + hx, y + hy);
    pen.text(base.label, x + hx - 3, y + 2 * hy + LABEL_MM - 1, 3, true);
    x += 2 * hx + GAP_MM;
  }
}

function draw(pen: Pen, tray: Tray, base: Base, x: number, y: number) {
  const shape = tray.wish.shape!;
  const [hx, hy] = halfOf(shape);
  const curved = shape.outline === "round" || shape.outline === "oval";
  const colour = (i: number) => tray.textures[i]!.near.field;
  const last = tray.textures.length - 1;
  pen.within(
    curved
      ? ellipseOutline(x, y, hx, hy)
      : [
          [x - hx, y - hy],
          [x + hx, y - hy],
          [x + hx, y + hy],
          [x - hx, y + hy],
        ],
    () => {
      pen.rect(x - hx, y - hy, 2 * hx, 2 * hy, { fill: colour(last) });
      for (let i = last - 1; i >= 0; i--)
        if (base.textures[i]) pen.path(base.textures[i]!, x, y, { fill: colour(i) });
    },
  );
  base.elements.forEach((e, i) => {
    const tone = tray.counts.find((c) => c.kind === e.kind)?.colour ?? "#85858a";
    if (e.kind === "rock" || e.kind === "cork")
      pen.path(stone(e), x, y, { fill: tone, line: "#000000", thickMm: 0.15 });
    else if (e.kind === "plank") {
      const [c, s] = [Math.cos((e.turn * Math.PI) / 180), Math.sin((e.turn * Math.PI) / 180)];
      const half = e.lengthMm / 2;
      pen.line(x + e.x - c * half, y + e.y - s * half, x + e.x + c * half, y + e.y + s * half, {
        line: tone,
        thickMm: 2 * e.radiusMm,
      });
    } else pen.path(blades(e, i), x, y, { line: tone, thickMm: 0.25 });
  });
  const ink = { line: "#000000", thickMm: 0.25 };
  if (curved) pen.ellipse(x, y, hx, hy, ink);
  else pen.rect(x - hx, y - hy, 2 * hx, 2 * hy, ink);
}
