import { beforeEach, describe, expect, it, vi } from "vitest";
import { drafts } from "./drafts";

// A store as a browser has it.
function memory() {
  const store: Record<string, string> = {};
  const hidden = { enumerable: false };
  return Object.defineProperties(store, {
    getItem: { ...hidden, value: (k: string) => store[k] ?? null },
    setItem: { ...hidden, value: (k: string, v: string) => (store[k] = v) },
    removeItem: { ...hidden, value: (k: string) => delete store[k] },
  }) as unknown as Storage;
}

describe("what is typed and not stored", () => {
  beforeEach(() => vi.stubGlobal("localStorage", memory()));

  it("is there again with the version it was typed against, until it is dropped", () => {
    drafts.keep("material a", { name: "Rust" }, 7);
    expect(drafts.whole("material a")).toMatchObject({ values: { name: "Rust" }, from: 7 });
    expect(drafts.of("material b")).toBeNull();
    drafts.drop("material a");
    expect(drafts.of("material a")).toBeNull();
  });

  it("is thrown away when nobody came back to it, or when it cannot be read; nothing else is touched", () => {
    drafts.keep("old", 1);
    localStorage.setItem("lowfell.draft.broken", "{");
    localStorage.setItem("lowfell.bench", "dark");
    drafts.tidy(Date.now() + 29 * 86_400_000);
    expect(drafts.of("old")).toBe(1);
    drafts.tidy(Date.now() + 31 * 86_400_000);
    expect(Object.keys(localStorage)).toEqual(["lowfell.bench"]);
  });

  it("does not break a form whose store is full", () => {
    vi.stubGlobal("localStorage", {
      setItem: () => {
        throw new DOMException("full", "QuotaExceededError");
      },
    });
    expect(() => drafts.keep("material", {})).not.toThrow();
  });
});
