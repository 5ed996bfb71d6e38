import { describe, expect, it } from "vitest";
import { Refused } from "./client";
import { hindered } from "./hindered";

const refused = (status: number) => new Refused({ status, code: "x", detail: "", errors: [] });
const query = (data: unknown, error: Error | null = null) => ({ data, error });

describe("a view", () => {
  it.each([
    ["with all it needs", [query(1), query(2)], null],
    ["that is still being read", [query(undefined)], null],
    ["of nothing at all", [], null],
  ])("%s is not hindered", (_, queries, why) => expect(hindered(...queries)).toBe(why));
  it.each([0, 502, 503, 504, 507])("that was read before stays while the server is away (%i)", (status) =>
    expect(hindered(query("read", refused(status)))).toBeNull(),
  );
  it.each([0, 404, 503])("that was never read says why (%i)", (status) => {
    const why = refused(status);
    expect(hindered(query("read"), query(undefined, why))).toBe(why);
  });
  it.each([400, 403, 404, 409, 500])(
    "of what is no longer there says so, whatever it showed before (%i)",
    (status) => {
      const why = refused(status);
      expect(hindered(query("read", why))).toBe(why);
    },
  );
  it("says anything else that went wrong", () => {
    const why = new TypeError("not a function");
    expect(hindered(query("read", why))).toBe(why);
  });
});
