import { expect, it } from "vitest";
import { habits, spreadWords } from "./types";

it("has a word for every step from shy to wild, the wilder the louder", () => {
  const words = Array.from({ length: 21 }, (_, i) => spreadWords(i / 20));
  expect(words[0]).toContain("shy");
  expect(words.at(-1)).toBe("wild");
  expect([...new Set(words)]).toEqual(["shy: nearly alike", "quiet", "lively", "strong", "wild"]);
});

it("names every habit once", () => {
  expect(new Set(habits.map((h) => h.value)).size).toBe(habits.length);
  expect(new Set(habits.map((h) => h.text)).size).toBe(habits.length);
});
