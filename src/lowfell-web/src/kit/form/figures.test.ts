import { describe, expect, it } from "vitest";
import { readFigure, readScale, sayFigure, type Unit } from "./figures";

const value = (text: string, unit: Unit) => {
  const found = readFigure(text, unit);
  return found && "value" in found ? found.value : found;
};

describe("a figure as it is typed", () => {
  it.each([
    ["12", "ml", 12],
    ["12 ml", "ml", 12],
    ["12ml", "ml", 12],
    ["1.5 cl", "ml", 15],
    ["0,5 l", "ml", 500],
    ["2,50", "", 2.5],
    [",5", "ml", 0.5],
    ["  7  ", "ml", 7],
    ["−3 ml", "ml", -3],
    ["1 h", "min", 60],
    ["1 h 30", "min", 90],
    ["1 h 30 min", "min", 90],
    ["2 days", "min", 2880],
    ["1 d 6 h", "min", 1800],
    ["90", "min", 90],
    ["12 cm", "mm", 120],
    ["90 cm", "m", 0.9],
    ["3 in", "mm", 76.2],
    ["36 inches", "m", 0.9144],
    ["2 in2", "cm²", 12.9032],
    ["1 m 30", "mm", 1300],
    ["0.4 dm²", "cm²", 40],
    ["40 cm2", "cm²", 40],
    ["35 %", "%", 35],
    ["35", "%", 35],
    ["0.1 l 3 cl", "ml", 130],
  ] as const)("reads %j in %j as %d", (text, unit, is) => {
    expect(value(text, unit)).toBeCloseTo(is, 9);
  });

  it("is nothing where nothing is typed", () => {
    expect(readFigure("", "ml")).toBeNull();
    expect(readFigure("   ", "min")).toBeNull();
  });

  it.each([
    ["much", "ml", "“much” is not a figure. Write it as 12 ml."],
    ["12 kg", "ml", "“kg” does not fit here. It can be ml, cl, dl or l."],
    ["12 ml", "", "Leave out “ml”: only a number stands here."],
    ["30 min 1 h", "min", "“30 min 1 h” is not a figure. Write it as 45 min, 1 h 30 or 2 days."],
    ["1.2.3", "ml", "“1.2.3” is not a figure. Write it as 12 ml."],
    ["5 5", "ml", "“5 5” is not a figure. Write it as 12 ml."],
    ["1e5", "ml", "“e” does not fit here. It can be ml, cl, dl or l."],
    ["1/0", "m", "“/” does not fit here. It can be m, cm or mm."],
  ] as const)("says of %j in %j what is wrong with it", (text, unit, why) => {
    expect(readFigure(text, unit)).toEqual({ fault: why });
  });

  it("comes back as it was said, for every unit and many numbers", () => {
    for (const unit of ["ml", "min", "mm", "m", "cm²", "%", "g/ml", ""] as const)
      for (const n of [0, 0.05, 0.4, 1, 17, 59, 60, 61, 90, 480, 1440, 2880, 10_080, 12_345, 1e6])
        expect(value(sayFigure(n, unit), unit), `${n} ${unit}`).toBeCloseTo(n, 9);
  });

  it("stands in a field with its unit and without false digits", () => {
    expect(sayFigure(0.1 + 0.2, "ml")).toBe("0.3 ml");
    expect(sayFigure(90, "min")).toBe("1 h 30 min");
    expect(sayFigure(1440, "min")).toBe("24 h");
    expect(sayFigure(10_080, "min")).toBe("7 days");
    expect(sayFigure(null, "ml")).toBe("");
  });
});

describe("a scale as it is typed", () => {
  it.each([
    ["1:56", 56],
    ["1 : 56", 56],
    ["1/72", 72],
    ["48", 48],
  ])("reads %j", (text, n) => expect(readScale(text)).toEqual({ value: n }));

  it("knows what is none", () => {
    expect(readScale("2:56")).toEqual({ fault: "“2:56” is not a scale. Write it as 1:56." });
    expect(readScale("")).toBeNull();
  });
});
