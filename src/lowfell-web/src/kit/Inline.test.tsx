// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it } from "vitest";
import { Inline } from "./Inline";

afterEach(cleanup);

/** A place that takes words as a server does: answered when the test says so. */
function place(refuses = false) {
  const stored: string[] = [];
  const answers: (() => void)[] = [];
  function Place() {
    const [value, setValue] = useState("tide line");
    const store = async (words: string) => {
      stored.push(words);
      await new Promise<void>((answer) => answers.push(answer));
      if (!refuses) setValue(words);
      return refuses ? null : words;
    };
    return (
      <>
        <Inline label="What it shows" value={value} most={20} onStore={store} />
        <button>elsewhere</button>
      </>
    );
  }
  render(<Place />);
  return {
    stored,
    answer: () => answers.shift()!(),
    field: screen.getByLabelText<HTMLInputElement>("What it shows"),
    hand: userEvent.setup(),
  };
}

describe("words changed where they stand", () => {
  it("are stored once, though Enter is pressed and the field is left", async () => {
    const { stored, answer, field, hand } = place();
    await hand.type(field, ", wet{Enter}");
    await hand.click(screen.getByText("elsewhere"));
    answer();
    await expect.poll(() => field.value).toBe("tide line, wet");
    expect(stored).toEqual(["tide line, wet"]);
  });

  it("that are typed while a store is on its way stay, and are stored after it", async () => {
    const { stored, answer, field, hand } = place();
    await hand.type(field, ", wet{Enter}");
    await hand.type(field, " yet");
    await hand.click(screen.getByText("elsewhere"));
    expect(stored).toEqual(["tide line, wet"]);
    answer();
    await expect.poll(() => stored).toEqual(["tide line, wet", "tide line, wet yet"]);
    expect(field.value).toBe("tide line, wet yet");
    answer();
    await expect.poll(() => stored.length).toBe(2);
    expect(field.value).toBe("tide line, wet yet");
  });

  it("that are refused stand as they were typed, and can be sent again", async () => {
    const { stored, answer, field, hand } = place(true);
    await hand.type(field, ", wet{Enter}");
    answer();
    await hand.click(screen.getByText("elsewhere"));
    expect(field.value).toBe("tide line, wet");
    await hand.type(field, "{Enter}");
    await expect.poll(() => stored.length).toBeGreaterThan(1);
  });

  it("say what is wrong with them, send nothing, and are taken back with Escape", async () => {
    const { stored, field, hand } = place();
    await hand.clear(field);
    await hand.keyboard("{Enter}");
    await screen.findByText("What it shows is missing.");
    expect(field.getAttribute("aria-invalid")).toBe("true");
    await hand.keyboard("a good deal more than twenty{Enter}");
    await screen.findByText("At most 20 characters.");
    await hand.keyboard("{Escape}");
    expect([field.value, stored.length, screen.queryByText("At most 20 characters.")]).toEqual([
      "tide line",
      0,
      null,
    ]);
  });
});
