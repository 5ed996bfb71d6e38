import { ellipseOutline, keepSheet, wrapped, type Pen } from "../../shared/sheet";
import type { Trial } from "./types";

const LINE_MM = 4.6,
  SIGNS = 108,
  PAST_MM = 4;

/** The trial as a file: the tile at true size with its masking lines and the numbers of its fields, and the order of work. */
export const keepTrial = (trial: Trial) =>
  keepSheet(`Trial ${trial.name}`, trial.name, (pen) => drawTrial(pen, trial));

export function drawTrial(pen: Pen, trial: Trial) {
  const { marginMm: left, heightMm } = pen.page;
  let y = left + 4;
  pen.text(trial.name, left, y, 5, true);
  y += 6;
  pen.text(
    `${trial.zone}, ${trial.design}: tile ${trial.tile.widthMm} x ${trial.tile.heightMm} mm, true size. Print without fitting to the page.`,
    left,
    y,
  );
  y += 8 + PAST_MM;
  tile(pen, trial, left + PAST_MM, y);
  y += trial.tile.heightMm + PAST_MM + 8;
  const say = (words: string, bold = false) => {
    for (const line of wrapped(words, SIGNS)) {
      if (y > heightMm - left) {
        pen.next();
        y = left + 4;
      }
      pen.text(line, left, y, 3.2, bold);
      y += LINE_MM;
    }
  };
  trial.factors.forEach((f) => say(`${f.words}: ${f.levels.join(" / ")}`));
  y += 2;
  say("In this order", true);
  trial.steps.forEach((s) =>
    say(`${s.number}. ${s.words}${s.waitMinutes > 0 ? ` Then about ${Math.round(s.waitMinutes)} min.` : ""}`),
  );
  y += 2;
  say("Fields", true);
  trial.cells.forEach((c) =>
    say(
      `${c.number}: ${c.levels.map((l, i) => trial.factors[i]!.levels[l]).join(", ")}${c.held ? " (as it is)" : ""}`,
    ),
  );
}

function tile(pen: Pen, trial: Trial, x: number, y: number) {
  const { widthMm: w, heightMm: h, round } = trial.tile;
  if (round) pen.ellipse(x + w / 2, y + h / 2, w / 2, h / 2, { line: "#666666" });
  else pen.rect(x, y, w, h, { line: "#666666" });
  pen.within(
    round
      ? ellipseOutline(x + w / 2, y + h / 2, w / 2, h / 2)
      : [
          [x, y],
          [x + w, y],
          [x + w, y + h],
          [x, y + h],
        ],
    () => {
      for (const c of trial.cells) {
        const [cx, cy] = [x + trial.leftMm + c.leftMm, y + trial.topMm + c.topMm];
        pen.rect(cx, cy, c.widthMm, c.heightMm, { fill: c.field });
        pen.rect(cx + 0.6, cy + 0.6, 4.4, 3.6, { fill: "#ffffff" });
        pen.text(String(c.number), cx + 1, cy + 3.6, 3, true);
      }
    },
  );
  const masks = new Map(trial.steps.flatMap((s) => s.masks).map((m) => [`${m.upright} ${m.atMm}`, m]));
  for (const m of masks.values()) {
    const ink = { line: "#000000", thickMm: 0.25, dashMm: [1.6, 1.2] };
    if (m.upright) {
      const at = x + trial.leftMm + m.atMm;
      pen.line(at, y - PAST_MM, at, y + h + PAST_MM, ink);
    } else {
      const at = y + trial.topMm + m.atMm;
      pen.line(x - PAST_MM, at, x + w + PAST_MM, at, ink);
    }
  }
}
