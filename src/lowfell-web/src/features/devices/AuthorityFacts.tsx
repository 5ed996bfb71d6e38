import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { useDoorstep } from "./useDoorstep";

const day = (at: string) =>
  new Date(at).toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" });

/** The workshop's own authority: by what devices know it, how long it lives, and making another. */
export function AuthorityFacts({ devices }: { devices: Schema["DevicesReading"] }) {
  const { workshopId, authority } = devices;
  const [step, busy] = useDoorstep();
  const [asks, setAsks] = useState(false);
  const make = async () => {
    await step("There is a new authority.", (headers) =>
      api.POST("/api/devices/{workshopId}/authority", { params: { path: { workshopId } }, headers }),
    );
    setAsks(false);
  };
  return (
    <section aria-labelledby="authority">
      <h2 id="authority" className="font-semibold">
        The workshop's own authority
      </h2>
      {authority.trouble && (
        <p role="status" className="text-amber">
          ▲ {authority.trouble}
        </p>
      )}
      <p className="max-w-2xl text-soft">
        Devices that trust it know this Lowfell by it. It can sign for addresses of your own network and for
        this machine's name, and for nothing else. Made {day(authority.madeAt)}
        {authority.goodUntil ? `, good until ${day(authority.goodUntil)}` : ""}.
      </p>
      {authority.fingerprint && (
        <p className="text-xs break-words text-soft">
          Its fingerprint (SHA-256): {authority.fingerprint.match(/.{4}/g)?.join(" ")}.
        </p>
      )}
      <Button className="mt-2" aria-haspopup="dialog" disabled={busy} onClick={() => setAsks(true)}>
        Make a new one…
      </Button>
      <p className="mt-3 text-xs text-soft">How an instrument speaks stands in docs/devices.md.</p>
      {asks && (
        <Dialog
          open
          onClose={() => setAsks(false)}
          title="Make a new authority?"
          says="For the day its key is lost, or in wrong hands. Devices stay taken in; each browser warns of the address again until it trusts the new one, and the old one should be removed from its trusted authorities."
        >
          <div className="flex gap-2">
            <Button autoFocus onClick={() => setAsks(false)}>
              Leave it
            </Button>
            <Button tone="plain" disabled={busy} onClick={() => void make()}>
              Make a new one
            </Button>
          </div>
        </Dialog>
      )}
    </section>
  );
}
