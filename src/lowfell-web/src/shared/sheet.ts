import type { PDFFont, PDFPage, RGB } from "pdf-lib";

/** Points of a printer to the mm. */
const PT = 72 / 25.4;

const A4 = { widthMm: 210, heightMm: 297 };
const MARGIN_MM = 12;

export type Ink = { fill?: string; line?: string; thickMm?: number; dashMm?: readonly number[] };

/** Draws in mm from the upper left of a page, true to size. */
export type Pen = {
  readonly page: { widthMm: number; heightMm: number; marginMm: number };
  next: () => void;
  rect: (x: number, y: number, w: number, h: number, ink: Ink) => void;
  ellipse: (x: number, y: number, rx: number, ry: number, ink: Ink) => void;
  line: (x1: number, y1: number, x2: number, y2: number, ink: Ink) => void;
  /** A path in mm about a point of the page. */
  path: (d: string, x: number, y: number, ink: Ink) => void;
  /** What is drawn meanwhile is cut off at an outline. */
  within: (outline: readonly (readonly [number, number])[], draw: () => void) => void;
  text: (words: string, x: number, y: number, sizeMm?: number, bold?: boolean) => void;
};

/** A true-size file of pages, offered to be kept. The library that writes it comes when it is needed. */
export async function keepSheet(name: string, title: string, draw: (pen: Pen) => void): Promise<void> {
  const bytes = await sheetOf(title, draw);
  const url = URL.createObjectURL(new Blob([bytes as BlobPart], { type: "application/pdf" }));
  const link = document.createElement("a");
  link.href = url;
  link.download = `${name.replace(/[^\p{L}\p{N} -]+/gu, "").trim() || "sheet"}.pdf`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** The bytes of such a file. */
export async function sheetOf(title: string, draw: (pen: Pen) => void): Promise<Uint8Array> {
  const pdf = await import("pdf-lib");
  const file = await pdf.PDFDocument.create();
  file.setTitle(title);
  file.setProducer("Lowfell");
  const [plain, bold] = await Promise.all([
    file.embedFont(pdf.StandardFonts.Helvetica),
    file.embedFont(pdf.StandardFonts.HelveticaBold),
  ]);
  const size: [number, number] = [A4.widthMm * PT, A4.heightMm * PT];
  let page: PDFPage = file.addPage(size);
  const up = (y: number) => (A4.heightMm - y) * PT;
  const colour = (hex: string | undefined): RGB | undefined =>
    hex === undefined
      ? undefined
      : pdf.rgb(
          parseInt(hex.slice(1, 3), 16) / 255,
          parseInt(hex.slice(3, 5), 16) / 255,
          parseInt(hex.slice(5, 7), 16) / 255,
        );
  const ink = ({ fill, line, thickMm = 0.2, dashMm }: Ink) => ({
    ...(fill ? { color: colour(fill)! } : {}),
    ...(line
      ? {
          borderColor: colour(line)!,
          borderWidth: thickMm * PT,
          ...(dashMm ? { borderDashArray: dashMm.map((d) => d * PT) } : {}),
        }
      : {}),
  });
  const pen: Pen = {
    page: { ...A4, marginMm: MARGIN_MM },
    next: () => (page = file.addPage(size)),
    rect: (x, y, w, h, i) =>
      page.drawRectangle({ x: x * PT, y: up(y + h), width: w * PT, height: h * PT, ...ink(i) }),
    ellipse: (x, y, rx, ry, i) =>
      page.drawEllipse({ x: x * PT, y: up(y), xScale: rx * PT, yScale: ry * PT, ...ink(i) }),
    line: (x1, y1, x2, y2, i) =>
      page.drawLine({
        start: { x: x1 * PT, y: up(y1) },
        end: { x: x2 * PT, y: up(y2) },
        thickness: (i.thickMm ?? 0.2) * PT,
        color: colour(i.line ?? "#000000")!,
        ...(i.dashMm ? { dashArray: i.dashMm.map((d) => d * PT) } : {}),
      }),
    path: (d, x, y, i) => page.drawSvgPath(d, { x: x * PT, y: up(y), scale: PT, ...ink(i) }),
    within: (outline, inside) => {
      const [first, ...rest] = outline;
      if (!first) return;
      page.pushOperators(
        pdf.pushGraphicsState(),
        pdf.moveTo(first[0] * PT, up(first[1])),
        ...rest.map(([x, y]) => pdf.lineTo(x * PT, up(y))),
        pdf.closePath(),
        pdf.clip(),
        pdf.endPath(),
      );
      inside();
      page.pushOperators(pdf.popGraphicsState());
    },
    text: (words, x, y, sizeMm = 3, isBold = false) => {
      const font = isBold ? bold : plain;
      page.drawText(sayable(font, words), { x: x * PT, y: up(y), size: sizeMm * PT, font });
    },
  };
  draw(pen);
  return file.save();
}

/** Signs that the plain font of every printer does not have are left as a question mark. */
function sayable(font: PDFFont, words: string): string {
  return [...words]
    .map((sign) => {
      try {
        font.encodeText(sign);
        return sign;
      } catch {
        return "?";
      }
    })
    .join("");
}

/** An outline to cut off at: of an ellipse, or the corners of an oblong. */
export const ellipseOutline = (x: number, y: number, rx: number, ry: number) =>
  Array.from({ length: 96 }, (_, i) => {
    const a = (i / 96) * 2 * Math.PI;
    return [x + Math.cos(a) * rx, y + Math.sin(a) * ry] as const;
  });

/** A sentence in lines of about so many signs. */
export function wrapped(words: string, most: number): string[] {
  const lines: string[] = [];
  for (const word of words.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length + 1 <= most)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
