// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, beforeAll, describe, expect, it } from "vitest";
import { Combobox } from "./Combobox";

// What a page of a browser has and this one does not.
beforeAll(() => {
  globalThis.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Element.prototype.scrollIntoView ??= () => {};
});
afterEach(cleanup);

const grounds = ["Fen", "Sluice", "Peat", "Bog", "Slate", "Reed"];
const names = grounds.flatMap((g) =>
  ["Brown", "Green", "Grey Wash", "Umber", "Seven", "Light"].map((c) => `${g} ${c}`),
);

/** A chooser among other things, and what came of it. */
function chooser() {
  const chosen: string[] = [];
  function Chooser() {
    const [value, setValue] = useState<string>("Fen Brown");
    return (
      <>
        <Combobox
          label="Material"
          value={value}
          options={names.map((n) => ({ value: n, text: n }))}
          onChange={(v) => {
            chosen.push(v);
            setValue(v);
          }}
        />
        <button>elsewhere</button>
      </>
    );
  }
  render(<Chooser />);
  return { chosen, field: screen.getByLabelText<HTMLInputElement>("Material"), hand: userEvent.setup() };
}

describe("a chooser", () => {
  it("takes ten names typed one after the other, each by Enter, and keeps the focus", async () => {
    const { chosen, field, hand } = chooser();
    const wanted = names.slice(1, 11);
    await hand.click(field);
    for (const name of wanted) {
      await hand.clear(field);
      await hand.keyboard(`${name}{Enter}`);
      expect([field.value, document.activeElement]).toEqual([name, field]);
    }
    expect(chosen).toEqual(wanted);
  });

  it("is left as it was by Escape, and by leaving it with something half typed", async () => {
    const { chosen, field, hand } = chooser();
    await hand.clear(field);
    await hand.keyboard("Peat Um{Escape}");
    expect(field.value).toBe("Fen Brown");
    await hand.clear(field);
    await hand.keyboard("Peat Um");
    await hand.click(screen.getByText("elsewhere"));
    expect([field.value, chosen]).toEqual(["Fen Brown", []]);
  });

  it("means a whole name that it is left with, and what is marked where it is left with Tab", async () => {
    const { chosen, field, hand } = chooser();
    await hand.clear(field);
    await hand.keyboard("Peat Umber");
    await hand.click(screen.getByText("elsewhere"));
    await hand.clear(field);
    await hand.keyboard("slate sev");
    await hand.tab();
    expect(chosen).toEqual(["Peat Umber", "Slate Seven"]);
  });

  it("is walked through with the arrows, from what is chosen", async () => {
    const { chosen, field, hand } = chooser();
    await hand.click(field);
    await hand.keyboard("{ArrowDown}{ArrowDown}{ArrowUp}{Enter}");
    expect(chosen).toEqual(["Fen Green"]);
  });

  it("says when nothing is called so, and takes nothing then", async () => {
    const { chosen, field, hand } = chooser();
    await hand.clear(field);
    await hand.keyboard("zinc{Enter}");
    await screen.findByText("Nothing here is called “zinc”.");
    expect(chosen).toEqual([]);
  });

  it("marks the row that is called just so, though another fits as well", async () => {
    const { field, hand } = chooser();
    await hand.clear(field);
    await hand.keyboard("reed grey wash");
    expect(screen.getByRole("option", { selected: true }).textContent).toBe("Reed Grey Wash");
  });
});
