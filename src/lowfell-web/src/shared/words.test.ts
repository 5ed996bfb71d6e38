import { describe, expect, it } from "vitest";
import {
  differs,
  heaviness,
  lostBeyond,
  minutes,
  ml,
  mlRange,
  money,
  percent,
  readRatio,
  taken,
  takenRange,
} from "./words";

describe("reading a ratio", () => {
  it.each([
    ["2:1", { paint: 2, thinner: 1 }],
    [" 1 : 1,5 ", { paint: 1, thinner: 1.5 }],
    ["neat", "neat"],
    ["", "neat"],
    ["3:0", "neat"],
    ["0:1", null],
    ["2", null],
    ["1:2000", null],
    ["1.234:1", null],
  ])("%s", (text, expected) => expect(readRatio(text)).toEqual(expected));
});

describe("figures in words", () => {
  it.each([
    [15, "15 min"],
    [89, "89 min"],
    [90, "1 h 30"],
    [480, "8 h"],
    [2880, "2 days"],
  ])("%d minutes", (n, words) => expect(minutes(n)).toBe(words));
  it("rounds volumes to what can be measured", () => {
    expect(ml(0.234)).toBe("0.2 ml");
    expect(ml(41.6)).toBe("42 ml");
  });
});

describe("what is seen", () => {
  it.each([
    [0.4, "nobody sees it, ΔE 0.4"],
    [1.6, "hardly seen, ΔE 1.6"],
    [3, "seen side by side, ΔE 3.0"],
    [6.7, "clearly seen, ΔE 6.7"],
    [23, "seen at once, ΔE 23.0"],
  ])("says a difference of %d in words first", (n, says) => expect(differs(n)).toBe(says));

  it("knows no distance that no table has", () => {
    expect(lostBeyond(2.34)).toBe("lost beyond 2.3 m");
    expect(lostBeyond(146)).toBe("seen from anywhere at a table");
    expect(lostBeyond(0)).toBe("not seen from anywhere");
  });
});

it("says money and shares as they are written", () => {
  expect(money(12.5, "€")).toBe("€ 12.50");
  expect(money(12.5, "marks")).toBe("12.50 marks");
  expect(money(12.5, "")).toBe("12.50");
  expect(percent(0.333)).toBe("33 %");
});

it("says how heavily a layer is laid", () => {
  expect([0, 0.4, 1, 1.55].map(heaviness)).toEqual([
    "not at all",
    "lighter, 40 % of usual",
    "as usual",
    "heavier, 155 % of usual",
  ]);
});

it("says what is taken as it is bought", () => {
  expect(taken({ ml: 12.4, grams: null, count: null })).toBe("12 ml");
  expect(taken({ ml: 7.9, grams: 12.2, count: null })).toBe("12 g");
  expect(taken({ ml: 0.4, grams: 0.6, count: null })).toBe("0.6 g");
  expect(taken({ ml: 0, grams: null, count: 24 })).toBe("24 pieces");
});

it("says a range of amounts once where both ends read the same", () => {
  expect(mlRange(8.94, 25.2)).toBe("8.9–25 ml");
  expect(mlRange(0.31, 0.34)).toBe("0.3 ml");
  expect(takenRange({ ml: 8, grams: 12, lowMl: 4, highMl: 10 })).toBe("6–15 g");
  expect(takenRange({ ml: 8, grams: null, lowMl: 4, highMl: 10 })).toBe("4–10 ml");
});
