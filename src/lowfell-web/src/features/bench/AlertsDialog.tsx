import { useState } from "react";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { alert, alerts, ways, type Way } from "./alerts";

const says: Record<Way, string> = {
  sound: "A short tone",
  vibration: "Vibration, where the device can",
  voice: "A spoken sentence",
};

/** How the edge of a window is told; off until it is asked for. */
export function AlertsDialog({ onClose }: { onClose: () => void }) {
  const [on, setOn] = useState(alerts.on());
  const turn = (way: Way, to: boolean) => {
    const next = to ? [...on, way] : on.filter((w) => w !== way);
    alerts.set(next);
    setOn(next);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Alerts"
      says="15 and 5 minutes before a window closes, and when it does."
    >
      {ways.map((way) => (
        <label key={way} className="flex min-h-14 items-center gap-3 text-base">
          <input
            type="checkbox"
            className="size-6"
            checked={on.includes(way)}
            onChange={(e) => turn(way, e.target.checked)}
          />
          {says[way]}
        </label>
      ))}
      <Button
        className="mt-3 min-h-14 px-4 text-base"
        disabled={on.length === 0}
        onClick={() => alert("Clean up W1 to W4: five minutes left.", on)}
      >
        Try it
      </Button>
    </Dialog>
  );
}
