// @vitest-environment jsdom
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { useLater } from "./useLater";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

it("stands without the part, asks again where it could not be had, and asks for nothing that is not wanted", async () => {
  let asked = 0;
  const load = () => {
    asked++;
    return asked < 3 ? Promise.reject(new Error("away")) : Promise.resolve(() => <b>here</b>);
  };
  function View({ wanted }: { wanted: boolean }) {
    const Part = useLater(load, wanted);
    return <p>view {Part && <Part />}</p>;
  }
  const { rerender } = render(<View wanted={false} />);
  await act(() => vi.advanceTimersByTimeAsync(10_000));
  expect(asked).toBe(0);
  rerender(<View wanted />);
  await act(() => vi.advanceTimersByTimeAsync(3_500));
  expect([asked, screen.queryByText("here")]).toEqual([2, null]);
  await act(() => vi.advanceTimersByTimeAsync(3_500));
  expect(screen.getByText("here")).toBeTruthy();
  await act(() => vi.advanceTimersByTimeAsync(10_000));
  expect(asked).toBe(3);
});
