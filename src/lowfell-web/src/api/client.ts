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

/** What the server did not do, and why: of wrong entries the first, as there is no other way to say which. */
export class Refused extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.errors[0]?.message ?? refusal.detail);
  }
}

/** A question with its words as they are. A browser's own Request would hand them over as a stream, which costs a slider a frame in ten. */
class Question {
  readonly headers: Headers;
  readonly method: string;

  constructor(
    readonly url: string,
    private readonly init: RequestInit,
  ) {
    this.headers = new Headers(init.headers);
    this.method = init.method ?? "GET";
  }

  send() {
    return fetch(this.url, { ...this.init, headers: this.headers });
  }
}

export const api = createClient<paths>({
  baseUrl: "/",
  Request: Question as unknown as typeof Request,
  fetch: (question) => (question as unknown as Question).send(),
});

/** A name this browser made up for itself: tells its own changes from those of other windows and devices. */
function device() {
  const kept = localStorage.getItem("lowfell-device");
  if (kept) return kept;
  const made = crypto.randomUUID() as string;
  localStorage.setItem("lowfell-device", made);
  return made;
}

/** Ids of the writes this page sent lately: news of them is no news here. */
export const sent = new Set<string>();
const SENT_KEPT = 500;
function remember(key: string) {
  sent.add(key);
  for (const old of sent) {
    if (sent.size <= SENT_KEPT) break;
    sent.delete(old);
  }
}

// Every write counts once: one that was given no id of its own gets one here.
api.use({
  onRequest({ request }) {
    request.headers.set("Lowfell-Device", device());
    if (request.method === "GET") return;
    const key = request.headers.get("Idempotency-Key") ?? crypto.randomUUID();
    request.headers.set("Idempotency-Key", key);
    remember(key);
  },
});

/** The data of an answer, or the refusal as an error. */
export async function take<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const nobody = (detail: string) => new Refused({ status: 0, code: "unreachable", detail, errors: [] });
  let answer;
  try {
    answer = await call;
  } catch (cause) {
    if (cause instanceof DOMException && cause.name === "AbortError") throw cause;
    throw nobody(
      "Lowfell's server does not answer. What is stored is safe; start it again and try once more.",
    );
  }
  // An answer that was cut off says nothing of what became of the question.
  if (answer.response.ok && answer.data === undefined && answer.response.status !== 204)
    throw nobody("The server's answer did not arrive whole. What is stored is safe; try once more.");
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
