import { expect, it } from "vitest";
import { sheetOf, wrapped } from "./sheet";

const ascii = (bytes: Uint8Array) => new TextDecoder("latin1").decode(bytes);

it("draws true to size: an inch of mm is 72 points, whatever signs a name has", async () => {
  const { PDFDocument } = await import("pdf-lib");
  const bytes = await sheetOf("A sheet", (pen) => {
    pen.rect(10, 10, 25.4, 50.8, { line: "#000000" });
    pen.text("Łódź – Keeper’s cottage 水", 10, 80);
    pen.next();
    pen.within(
      [
        [0, 0],
        [50, 0],
        [50, 50],
      ],
      () => pen.path("M0 0L10 0L10 10Z", 20, 20, { fill: "#ff0000" }),
    );
  });
  expect(ascii(bytes).startsWith("%PDF-")).toBe(true);
  const file = await PDFDocument.load(bytes);
  expect(file.getPageCount()).toBe(2);
  expect(file.getTitle()).toBe("A sheet");
  expect(file.getPage(0).getWidth()).toBeCloseTo((210 * 72) / 25.4, 3);
});

it("breaks a sentence into lines and loses no word", () => {
  const lines = wrapped("tape 8 and 16 mm from the left, then one coat over fields 1 to 3", 24);
  expect(lines.every((l) => l.length <= 24)).toBe(true);
  expect(lines.join(" ")).toBe("tape 8 and 16 mm from the left, then one coat over fields 1 to 3");
});
