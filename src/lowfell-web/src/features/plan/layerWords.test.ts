import { describe, expect, it } from "vitest";
import { blank } from "./blank";
import { capital, detailWords, paintWords, waitWords } from "./layerWords";
import type { Layer } from "./stack";
import type { Material, TechniqueInfo } from "./types";

const material = (id: string, name: string) => ({ id, name }) as Material;
const shelf = new Map(
  [material("p", "Peat Seven"), material("b", "Brick Clay"), material("w", "Tap Water")].map((m) => [
    m.id,
    m,
  ]),
);
const plain = blank([
  { technique: "base coat", laydown: "film", usualTool: "brush", suits: ["paint"] } as TechniqueInfo,
]);
const layer = (change: Partial<Layer>): Layer => ({ ...plain, ...change });
const neat = { paint: [{ materialId: "p", parts: 1 }] };

describe("what a layer is laid with", () => {
  it.each<[string, Partial<Layer>, string]>([
    ["nothing", { paint: [] }, "no material"],
    ["one paint", neat, "Peat Seven"],
    [
      "a mix",
      {
        paint: [
          { materialId: "p", parts: 2 },
          { materialId: "b", parts: 1 },
        ],
      },
      "Peat Seven + Brick Clay",
    ],
    ["what left the shelf", { paint: [{ materialId: "gone", parts: 1 }] }, "removed material"],
  ])("%s", (_, change, words) => expect(paintWords(layer(change), shelf)).toBe(words));
});

describe("how a layer is laid", () => {
  const said = (change: Partial<Layer>) => detailWords(layer({ ...neat, tool: "brush", ...change }), shelf);
  it.each<[string, Partial<Layer>, string]>([
    ["as it comes", {}, "neat · brush"],
    ["thinned", { dilution: { thinnerId: "w", paint: 1, thinner: 3 } }, "1 : 3 Tap Water · brush"],
    ["lightly", { strength: 0.6 }, "neat · lighter, 60 % of usual · brush"],
    ["heavily", { strength: 1.5 }, "neat · heavier, 150 % of usual · brush"],
    ["in coats", { coats: 2 }, "neat · 2 coats · brush"],
    ["in one place", { region: "edges", markMm: 0.5 }, "neat · edges · brush · 0.5 mm wide"],
    ["hurried, and only perhaps", { drying: "hot air", optional: true }, "neat · brush · hot air · optional"],
    ["with a word beside it", { note: "from above" }, "neat · brush · from above"],
    ["with no paint at all", { paint: [], tool: "spatula" }, "spatula"],
    [
      "in parts",
      {
        paint: [
          { materialId: "p", parts: 2 },
          { materialId: "b", parts: 1 },
        ],
      },
      "2 : 1 · neat · brush",
    ],
  ])("%s", (_, change, words) => expect(said(change)).toBe(words));
});

describe("the wait after a layer", () => {
  it.each([
    [0, "at once"],
    [30, "30 min"],
    [90, "1 h 30"],
  ])("%i minutes", (n, words) => expect(waitWords(n)).toBe(words));
});

it("a line begins with a capital", () =>
  expect([capital("pin wash"), capital("")]).toEqual(["Pin wash", ""]));
