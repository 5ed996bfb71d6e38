import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schema = components["schemas"];

/** What the server says when it refuses: a stable code, words, and the fields meant. */
export type Refusal = {
  status: number;
  code: string;
  detail: string;
  errors: { field: string; message: string }[];
  current?: unknown;
};

export class Refused extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.detail);
  }
}

export const api = createClient<paths>({ baseUrl: "/" });

/** A name this browser made up for itself: tells its own changes from those of other windows and devices. */
export const device = (() => {
  const kept = localStorage.getItem("lowfell-device");
  if (kept) return kept;
  const made = crypto.randomUUID() as string;
  localStorage.setItem("lowfell-device", made);
  return made;
})();

// Every write counts once: one that was given no id of its own gets one here.
api.use({
  onRequest({ request }) {
    if (request.method === "GET") return;
    if (!request.headers.has("Idempotency-Key")) request.headers.set("Idempotency-Key", crypto.randomUUID());
    request.headers.set("Lowfell-Device", device);
  },
});

/** The data of an answer, or the refusal as an error. */
export async function take<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let answer;
  try {
    answer = await call;
  } catch (cause) {
    if (cause instanceof DOMException && cause.name === "AbortError") throw cause;
    throw new Refused({
      status: 0,
      code: "unreachable",
      detail: "Lowfell's server does not answer. What is stored is safe; start it again and try once more.",
      errors: [],
    });
  }
  if (answer.response.ok) return answer.data as T;
  const said = (answer.error ?? {}) as Partial<Refusal>;
  throw new Refused({
    status: answer.response.status,
    code: said.code ?? "unknown",
    detail: said.detail ?? `The server answered ${answer.response.status}.`,
    errors: said.errors ?? [],
    current: said.current,
  });
}

/** A fresh id for a write, so that a repeated sending is carried out once. */
export const once = () => ({ "Idempotency-Key": crypto.randomUUID() });
