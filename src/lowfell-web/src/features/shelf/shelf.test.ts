import { describe, expect, it } from "vitest";
import { blankForm, forCard, formOf, schema, toMaterial, type Form } from "./form";
import { matches } from "./search";

const typed = (change: Partial<Form>) => schema.safeParse({ ...blankForm, name: "Salt", ...change });
const sent = (change: Partial<Form>) => {
  const read = typed(change);
  if (!read.success) throw read.error;
  return toMaterial(read.data, 7);
};
const faults = (change: Partial<Form>) => {
  const read = typed(change);
  return read.success ? {} : Object.fromEntries(read.error.issues.map((i) => [i.path.join("."), i.message]));
};

const material = {
  ...sent({ name: "Peat Seven", maker: "Tarnside", colour: "#4a3527", notes: "dries darker" }),
} as unknown as Parameters<typeof formOf>[0];

it.each([
  ["peat", true],
  ["PEAT tarnside", true],
  ["darker acrylic", true],
  ["peat enamel", false],
  ["", true],
])("finding %s", (words, found) => expect(matches(material, words)).toBe(found));

describe("a material as it is typed", () => {
  it("is sent with commas as points, units as ml and minutes, and nothing as nothing", () => {
    expect(
      sent({
        colour: " #e6e1d3 ",
        coatsToHide: "2,5",
        stockMl: "0,2 l",
        recoatMinutes: "1 h 30",
        solidsFraction: "42 %",
        price: "2,80",
      }),
    ).toMatchObject({
      version: 7,
      colour: "#e6e1d3",
      coatsToHide: 2.5,
      stockMl: 200,
      recoatMinutes: 90,
      touchMinutes: null,
      solidsFraction: 0.42,
      price: 2.8,
      overBlack: null,
    });
  });

  it("names the field and the remedy", () => {
    expect(faults({ colour: "" })).toEqual({ colour: "Give its colour, or a contrast card." });
    expect(faults({ colour: "#e6e1d3", overBlack: "#111111" })).toEqual({
      overWhite: "A contrast card needs both halves.",
    });
    expect(faults({ colour: "#e6e1d3", stockMl: "lots" })).toEqual({
      stockMl: "“lots” is not a figure. Write it as 12 ml.",
    });
    expect(faults({ colour: "#e6e1d3", touchMinutes: "2 h", recoatMinutes: "1 h" })).toEqual({
      recoatMinutes: "It can be recoated only once it is touch dry.",
    });
    expect(faults({ colour: "#e6e1d3", touchMinutes: "2 h", cureMinutes: "1 h" })).toEqual({
      cureMinutes: "It has cured only after it can be recoated.",
    });
  });

  it("needs no colour where it has none", () => {
    for (const kind of ["varnish", "thinner", "tuft"] as const) expect(faults({ kind })).toEqual({});
  });

  it("is shown as it would be typed, and comes back as it was", () => {
    const stored = {
      ...material,
      coatsToHide: 2.5,
      price: 3.5,
      solidsFraction: 0.42,
      touchMinutes: 20,
      recoatMinutes: 90,
      cureMinutes: 1440,
      stockMl: 12.5,
      packMl: 0,
    } as typeof material;
    const form = formOf(stored);
    expect(form).toMatchObject({
      coatsToHide: "2.5",
      price: "3.50",
      solidsFraction: "42 %",
      recoatMinutes: "1 h 30 min",
      cureMinutes: "24 h",
      stockMl: "12.5 ml",
      packMl: "",
    });
    expect(toMaterial(schema.parse(form), 7)).toMatchObject({
      coatsToHide: 2.5,
      price: 3.5,
      solidsFraction: 0.42,
      touchMinutes: 20,
      cureMinutes: 1440,
      stockMl: 12.5,
    });
  });

  it("keeps what the label says of hot air, and takes an older draft that says nothing of it", () => {
    expect(toMaterial(schema.parse(formOf({ ...material, heatSafe: true })), 7).heatSafe).toBe(true);
    expect(toMaterial(schema.parse(formOf(material)), 7).heatSafe).toBe(false);
    const { hotAir, ...older } = formOf(material);
    expect(hotAir).toBe("by its kind");
    expect(schema.parse(older).hotAir).toBe("by its kind");
  });

  it("gives a card as soon as it has a colour, whatever else is half typed", () => {
    expect(forCard({ ...blankForm, colour: "#4a3527", name: "" })).toMatchObject({ coloured: true });
    expect(forCard({ ...blankForm, colour: "#4a3", kind: "wash" })).toMatchObject({
      coloured: false,
      body: { kind: "wash" },
    });
  });
});
