import { describe, expect, it } from "vitest";
import { read, say } from "./pace";

const none = {
  setUpMinutes: null,
  cleanUpMinutes: null,
  minutesPerCm2: null,
  minutesPerCm: null,
  minutesPerPiece: null,
  minutesPerDetail: null,
  learning: null,
  factor: null,
  error: null,
};

describe("figures of a technique", () => {
  it("are typed with their units, shares in per cent, and empty where the rule of thumb stands", () => {
    const said = say({ ...none, setUpMinutes: 4, learning: 0.93, minutesPerCm2: 0.09 });
    expect(said.setUpMinutes).toBe("4 min");
    expect(said.learning).toBe("93 %");
    expect(said.minutesPerCm2).toBe("0.09");
    expect(said.factor).toBe("");
  });
  it("are sent as shares, and null where nothing is written", () => {
    expect(read({ ...none, error: 20, factor: 1.5 })).toEqual({ ...none, error: 0.2, factor: 1.5 });
  });
});
