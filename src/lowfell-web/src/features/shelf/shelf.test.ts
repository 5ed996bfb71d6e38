import { expect, it } from "vitest";
import { blankForm, formOf, toMaterial } from "./form";
import { matches } from "./search";

const material = {
  ...toMaterial({ ...blankForm, name: "Peat Seven", maker: "Tarnside", colour: "#4a3527" }, null),
  notes: "dries darker",
} as unknown as Parameters<typeof matches>[0];

it.each([
  ["peat", true],
  ["PEAT tarnside", true],
  ["darker acrylic", true],
  ["peat enamel", false],
  ["", true],
])("finding %s", (words, found) => expect(matches(material, words)).toBe(found));

it("sends what was typed, empty fields as nothing and commas as points", () => {
  const sent = toMaterial(
    { ...blankForm, name: "Salt", colour: " #e6e1d3 ", coatsToHide: "2,5", overBlack: "" },
    7,
  );
  expect(sent).toMatchObject({ version: 7, colour: "#e6e1d3", coatsToHide: 2.5, overBlack: null });
});

it("sends letters in a number field as an impossible value, so that the field is named", () => {
  expect(toMaterial({ ...blankForm, stockMl: "lots" }, null).stockMl).toBe(-1);
});

it("shows a stored material as it was typed", () => {
  const form = formOf({
    ...(material as unknown as Parameters<typeof formOf>[0]),
    coatsToHide: null,
    price: 3.5,
  });
  expect(form).toMatchObject({ name: "Peat Seven", coatsToHide: "", price: "3.5" });
});
