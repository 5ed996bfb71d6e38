import { describe, expect, it } from "vitest";
import { colour, figure, maybe, name, percent, scale, words, type z } from "./checks";
import { overlay } from "./drafts";
import { pathOf } from "./useForm";

const said = (schema: z.ZodType, typed: unknown) => {
  const read = schema.safeParse(typed);
  return read.success ? read.data : read.error.issues.map((i) => i.message);
};

describe("what may stand in a field", () => {
  const area = figure("cm²", { name: "The area", above: 0, most: 100_000 });
  it("keeps limits, and says them with their unit", () => {
    expect(said(area, "2 dm²")).toBe(200);
    expect(said(area, "0")).toEqual(["The area is more than 0 cm²."]);
    expect(said(area, "1000000")).toEqual(["The area is at most 100000 cm²."]);
    expect(said(area, "")).toEqual(["The area is missing."]);
  });

  it("refuses a part of a piece", () => {
    const pieces = figure("", { name: "The number of pieces", least: 1, most: 500, whole: true });
    expect(said(pieces, "2.5")).toEqual(["The number of pieces is a whole number."]);
    expect(said(pieces, "0")).toEqual(["The number of pieces is at least 1."]);
    expect(said(pieces, "24")).toBe(24);
  });

  it("keeps nothing as nothing", () => {
    expect(said(maybe("min", { name: "Touch dry", least: 0 }), " ")).toBeNull();
    expect(said(percent({ name: "Solids" }), "")).toBeNull();
  });

  it("takes a share in per cent", () => {
    expect(said(percent({ name: "Solids" }), "40 %")).toBe(0.4);
    expect(said(percent({ name: "Solids" }), "101")).toEqual(["Solids is at most 100 %."]);
  });

  it("wants a name that can be seen", () => {
    expect(said(name("The name"), "  Fen mud ")).toBe("Fen mud");
    expect(said(name("The name"), "   ")).toEqual(["The name is missing."]);
    expect(said(name("The name"), "Fen\u202emud")).toEqual([
      "The name holds characters that cannot be seen.",
    ]);
    expect(said(name("The name", 3), "Fenn")).toEqual(["The name has at most 3 characters."]);
    expect(said(words("The note", 2), "abc")).toEqual(["The note has at most 2 characters."]);
  });

  it("reads colours and scales", () => {
    expect(said(colour("The colour"), "#6B4F2A")).toBe("#6B4F2A");
    expect(said(colour("The colour"), "")).toBeNull();
    expect(said(colour("The colour"), "brown")).toEqual(["The colour is written as #6b4f2a."]);
    expect(said(scale, "1:48")).toBe(48);
    expect(said(scale, "")).toEqual(["The scale is missing; write it as 1:56."]);
    expect(said(scale, "1:2000")).toEqual(["The scale is at most 1000."]);
  });
});

describe("a draft", () => {
  const begin = { name: "", thinners: ["water"], safe: false, note: null as string | null };
  it("lies over what the form begins with", () => {
    expect(overlay(begin, { name: "Rust", safe: true })).toEqual({ ...begin, name: "Rust", safe: true });
  });
  it("of another kind or of fields long gone changes nothing", () => {
    expect(overlay(begin, { name: 3, thinners: "water", gone: 1 })).toEqual(begin);
    expect(overlay(begin, null)).toEqual(begin);
    expect(overlay(begin, "x")).toEqual(begin);
  });
});

describe("a fault of the server", () => {
  it("is said of the same field here", () => {
    expect(pathOf("design.zones[3].areaCm2")).toBe("design.zones.3.areaCm2");
    expect(pathOf("name")).toBe("name");
  });
});
