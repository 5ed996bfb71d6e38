import { expect, it } from "vitest";
import { doors, type Row } from "./fold";

const NOW = Date.UTC(2026, 10, 26, 20),
  MINUTE = 60_000;

/** Something that can be moved, chipped or pressed in until so many minutes from now. */
const closing = (minutes: number) =>
  ({
    pieces: ["W1"],
    doneAt: new Date(NOW - 60 * MINUTE).toISOString(),
    opensAt: null,
    closes: "clean up",
    closesAt: new Date(NOW + minutes * MINUTE).toISOString(),
  }) as unknown as Row;

it("shows what closes within eight hours, the nearest first, and what has closed for half an hour still", () => {
  const shown = doors([479, 481, 480, 5, -29, -30, -31].map(closing), NOW);
  expect(shown.map((d) => d.closesIn)).toEqual([-29, 5, 479]);
  expect(shown.map((d) => d.opensIn)).toEqual([-60, -60, -60]);
});

it("shows nothing of what never closes", () => {
  expect(
    doors(
      [
        { ...closing(5), closesAt: null },
        { ...closing(5), closes: null },
      ],
      NOW,
    ),
  ).toEqual([]);
});
