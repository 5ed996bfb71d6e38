import { useEffect, useState } from "react";
import { api, Refused, type Schema } from "../../api/client";
import { write } from "../../api/writes";
import { Alert } from "../../kit/Alert";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { leftWords } from "./says";
import { Square } from "./Square";

const TICK_MS = 1000;

/** A key to take one device in with: as a square for its camera, and as letters to type. */
export function KeyDialog(props: { workshopId: string; role: Schema["DeviceRole"]; onClose: () => void }) {
  const { workshopId, role } = props;
  const [key, setKey] = useState<Schema["PairingKey"] | null>(null);
  const [fault, setFault] = useState("");
  const [asked, ask] = useState(0);
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    let gone = false;
    write((headers) =>
      api.POST("/api/devices/{workshopId}/keys", {
        params: { path: { workshopId } },
        headers,
        body: { role },
      }),
    ).then(
      (made) => !gone && setKey(made),
      (error: unknown) => !gone && setFault(error instanceof Refused ? error.message : "It was refused."),
    );
    return () => {
      gone = true;
    };
  }, [workshopId, role, asked]);
  useEffect(() => {
    const timer = window.setInterval(() => setNow(Date.now()), TICK_MS);
    return () => window.clearInterval(timer);
  }, []);
  const until = key ? Date.parse(key.goodUntil) : 0;
  const over = !!key && until <= now;
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={role === "measure" ? "A key for an instrument" : "A key for a device"}
      says={
        role === "measure"
          ? "The instrument shows it once, and its own secret from then on."
          : role === "work"
            ? "Whoever shows it may tell what happens at the bench."
            : "Whoever shows it sees the bench, and can change nothing."
      }
    >
      {fault && <Alert>{fault}</Alert>}
      {!fault && !key && <p className="text-soft">Making a key…</p>}
      {key && (
        <div className="grid justify-items-center gap-3 text-center">
          {over ? (
            <p role="status">This key is too old now.</p>
          ) : (
            <>
              {role !== "measure" && key.address && (
                <Square modules={key.modules} says={`The address ${key.address} as a square`} />
              )}
              <p className="font-mono text-xl tracking-wider select-all" data-key>
                {key.key}
              </p>
              {key.address && role !== "measure" && (
                <p className="text-soft">
                  Scan it, or open <b>{key.address.split("#")[0]}</b> and type the key. The browser warns of
                  the address the first time: its certificate is the workshop's own.
                </p>
              )}
              <p className="text-xs text-soft" role="timer">
                Good for {leftWords(until, now)} more.
              </p>
            </>
          )}
          <div className="flex gap-2">
            <Button
              onClick={() => {
                setKey(null);
                ask(asked + 1);
              }}
            >
              Another key
            </Button>
            <Button tone="plain" onClick={props.onClose}>
              Close
            </Button>
          </div>
        </div>
      )}
    </Dialog>
  );
}
