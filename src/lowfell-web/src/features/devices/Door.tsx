import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Choice, TextField } from "../../kit/Field";
import { NumberField } from "../../kit/NumberField";
import { useDoorstep } from "./useDoorstep";

const OTHER = "another address";

/** Where other devices come in: shut, or open at an address of this machine. */
export function Door({ devices }: { devices: Schema["DevicesReading"] }) {
  const { workshopId, addresses } = devices;
  const [step, busy] = useDoorstep();
  const [address, setAddress] = useState(addresses[0] ?? OTHER);
  const [typed, setTyped] = useState("");
  const [port, setPort] = useState(devices.usualPort);
  const open = () =>
    step("The door is open.", (headers) =>
      api.PUT("/api/devices/{workshopId}/door", {
        params: { path: { workshopId } },
        headers,
        body: { address: address === OTHER ? typed.trim() : address, port },
      }),
    );
  const shut = () =>
    step("The door is shut.", (headers) =>
      api.DELETE("/api/devices/{workshopId}/door", { params: { path: { workshopId } }, headers }),
    );
  return (
    <section aria-labelledby="door" className="rounded-[4px] border border-line bg-card px-4 py-3">
      <h2 id="door" className="font-semibold">
        The door is {devices.openAt ? "open" : "shut"}
      </h2>
      {devices.trouble && (
        <p role="status" className="text-amber">
          ▲ It should be open and is not: {devices.trouble}
        </p>
      )}
      {devices.openAt ? (
        <div className="mt-1 flex flex-wrap items-center gap-3">
          <p>
            Devices in the same network reach the bench at <b>https://{devices.openAt}</b>.
          </p>
          <Button disabled={busy} onClick={() => void shut()}>
            Shut it
          </Button>
        </div>
      ) : (
        <form
          className="mt-2 grid max-w-xl grid-cols-[minmax(0,2fr)_minmax(0,1fr)_auto] items-start gap-3 max-sm:grid-cols-1"
          onSubmit={(e) => {
            e.preventDefault();
            void open();
          }}
        >
          <div className="grid gap-2">
            <Choice
              label="At this machine's address"
              value={address}
              options={[...addresses, OTHER]}
              onChange={setAddress}
            />
            {address === OTHER && (
              <TextField
                label="Address"
                value={typed}
                inputMode="decimal"
                placeholder="192.168.1.20"
                onChange={(e) => setTyped(e.target.value)}
              />
            )}
          </div>
          <NumberField label="Port" value={port} unit="" least={1} most={65535} onSet={setPort} />
          <Button type="submit" tone="go" className="sm:mt-[22px]" disabled={busy}>
            Open it
          </Button>
        </form>
      )}
    </section>
  );
}
