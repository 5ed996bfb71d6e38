// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { Refused } from "./client";
import { useWrite } from "./writes";

afterEach(cleanup);

/** A server that answers when it is told to. */
function server() {
  const asked: string[] = [];
  const answers: ((status: number) => void)[] = [];
  const call = (what: string) => () => {
    asked.push(what);
    return new Promise<{ data?: string; error?: unknown; response: Response }>((answer) =>
      answers.push((status) => {
        const response = { ok: status < 300, status } as Response;
        answer(response.ok ? { data: what, response } : { error: { code: "no", detail: "No." }, response });
      }),
    );
  };
  return { asked, call, answer: (status = 200) => act(async () => answers.shift()!(status)) };
}

it("two writes from one place are both sent, one after the other, each with its own answer", async () => {
  const { result } = renderHook(() => useWrite("work"));
  const { asked, call, answer } = server();
  let both: Promise<string[]>;
  await act(
    async () =>
      void (both = Promise.all([result.current[0](call("photograph")), result.current[0](call("words"))])),
  );
  expect([asked, result.current[1]]).toEqual([["photograph"], true]);
  await answer();
  await expect.poll(() => asked).toEqual(["photograph", "words"]);
  expect(result.current[1]).toBe(true);
  await answer();
  expect(await both!).toEqual(["photograph", "words"]);
  await expect.poll(() => result.current[1]).toBe(false);
});

it("one that is refused does not keep the next from being sent", async () => {
  const { result } = renderHook(() => useWrite("work"));
  const { asked, call, answer } = server();
  let first: Promise<unknown>, second: Promise<string>;
  await act(async () => {
    first = result.current[0](call("photograph")).catch((why: unknown) => why);
    second = result.current[0](call("words"));
  });
  await answer(409);
  expect(await first!).toBeInstanceOf(Refused);
  await expect.poll(() => asked).toEqual(["photograph", "words"]);
  await answer();
  expect(await second!).toBe("words");
});
