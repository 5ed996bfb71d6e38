// @vitest-environment jsdom
import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeAll, beforeEach, expect, it, vi } from "vitest";
import type { Schema } from "../../api/client";
import { cache } from "../../api/cache";
import { ToastProvider } from "../../kit/Toast";
import { Order } from "./Order";

type Whole = Schema["TreatmentOrder"];

const layer = (id: string) => ({ id, note: "" }) as Schema["LayerDto"];
const whole = (over: Record<string, string[]>): Whole => ({
  id: "t",
  name: "The wall",
  version: 7,
  revision: 3,
  surfaces: [
    { id: "brick", name: "brick", onId: null, zones: [] },
    { id: "coping", name: "coping", onId: null, zones: [] },
  ],
  steps: Object.entries(over).map(([id, surfaces]) => ({
    layer: layer(id),
    words: `${id} coat`,
    over: surfaces.map((surfaceId) => ({
      surfaceId,
      lineId: `${id} ${surfaceId}`,
      colour: "#808080",
      own: null,
    })),
  })),
});
const card = {
  id: "t",
  name: "The wall",
  version: 7,
  putAwayAt: null,
  uses: [],
} as unknown as Schema["TreatmentCard"];
const others = ["Rope", "Iron", "Glass", "Timber", "Slate", "Mud", "Reeds", "Salt"].map(
  (name, i) => ({ ...card, id: `o${i}`, name, version: i }) as Schema["TreatmentCard"],
);

let asked: { method: string; path: string; body: unknown }[];
let stands: Whole;

// What a page of a browser has and this one does not.
beforeAll(() => {
  globalThis.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Element.prototype.scrollIntoView ??= () => {};
});
beforeEach(() => {
  asked = [];
  cache.clear();
  vi.stubGlobal("fetch", async (url: string, init: RequestInit) => {
    const path = new URL(url, location.href).pathname;
    if (init.method !== "GET")
      asked.push({ method: init.method!, path, body: JSON.parse(String(init.body)) });
    return Response.json(stands);
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const shown = () =>
  render(
    <QueryClientProvider client={cache}>
      <ToastProvider>
        <Order card={card} others={[card, ...others]} workshopId="w" />
      </ToastProvider>
    </QueryClientProvider>,
  );

it("ticks what each layer goes over, newest on top, and sends what it is to go over", async () => {
  stands = whole({ first: ["brick", "coping"], second: ["coping"] });
  shown();
  const box = await screen.findByLabelText<HTMLInputElement>("second coat over brick");
  const rows = screen.getAllByRole("row").slice(1);
  expect(rows.map((r) => r.querySelector("th")!.textContent)).toEqual(["second coat", "first coat"]);
  expect(box.checked).toBe(false);
  await userEvent.click(box);
  await expect
    .poll(() => asked)
    .toEqual([
      {
        method: "PUT",
        path: "/api/treatments/t/steps/second/over",
        body: { version: 7, over: ["brick", "coping"] },
      },
    ]);
});

it("leaves a layer where it lies last", async () => {
  stands = whole({ first: ["coping"] });
  shown();
  expect((await screen.findByLabelText<HTMLInputElement>("first coat over coping")).disabled).toBe(true);
  expect(screen.getByLabelText<HTMLInputElement>("first coat over brick").disabled).toBe(false);
});

it("shows no table where there is one surface, and brings another treatment in", async () => {
  stands = {
    ...whole({ first: ["brick"] }),
    surfaces: [{ id: "brick", name: "brick", onId: null, zones: [] }],
  };
  shown();
  const hand = userEvent.setup();
  const chooser = await screen.findByLabelText("Bring another treatment in");
  expect(screen.queryByRole("table")).toBeNull();
  await hand.click(chooser);
  await hand.keyboard("Timber{Enter}");
  await hand.click(screen.getByRole("button", { name: "Bring it in" }));
  await expect
    .poll(() => asked)
    .toEqual([
      {
        method: "POST",
        path: "/api/treatments/t/together",
        body: { version: 7, with: [{ treatmentId: "o3", version: 3 }], name: null },
      },
    ]);
});

it("makes a surface a detail on another, and leaves it out", async () => {
  stands = whole({ first: ["brick", "coping"] });
  shown();
  const hand = userEvent.setup();
  (await screen.findByLabelText("What coping stands on")).focus();
  await hand.keyboard("{Enter}");
  await hand.keyboard("{ArrowDown}{Enter}");
  const [brick, coping] = stands.surfaces;
  await expect
    .poll(() => asked[0])
    .toEqual({
      method: "PUT",
      path: "/api/treatments/t/surfaces",
      body: {
        version: 7,
        surfaces: [
          { id: "brick", name: "brick", onId: null },
          { id: "coping", name: "coping", onId: "brick" },
        ],
      },
    });
  cleanup();
  cache.clear();
  asked = [];
  stands = { ...stands, surfaces: [brick!, { ...coping!, onId: "brick" }] };
  shown();
  await hand.click(await screen.findByRole("button", { name: "Leave out" }));

  // What a detail stands on is none itself.
  expect(screen.queryByLabelText("What brick stands on")).toBeNull();
  await expect
    .poll(() => asked)
    .toEqual([{ method: "POST", path: "/api/treatments/t/surfaces/coping/leave-out", body: { version: 7 } }]);
});
