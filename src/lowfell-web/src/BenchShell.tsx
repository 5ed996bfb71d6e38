import { useEffect, useRef, useState } from "react";
import { Outlet, useParams } from "react-router";
import { useChanges } from "./api/changes";
import { keepFocusHome } from "./kit/focusHome";
import { useAllCommands, useCommands } from "./kit/keys";
import { KeysDialog } from "./kit/KeysDialog";
import { Tip } from "./kit/Tip";
import { Waiting } from "./kit/Waiting";

/** Around the bench on another device: nothing but the keys that work there. */
export function BenchShell() {
  const { workshopId } = useParams();
  const [keys, setKeys] = useState(false);
  useChanges(workshopId);
  const main = useRef<HTMLElement>(null);
  useEffect(() => {
    document.title = "Bench · Lowfell";
    main.current?.focus({ preventScroll: true });
    return keepFocusHome();
  }, []);
  useCommands("Everywhere", [{ id: "keys", key: "?", says: "these keys", run: () => setKeys(true) }], {
    ready: true,
  });
  const scopes = useAllCommands();
  return (
    <div className="flex h-full flex-col">
      <Waiting />
      <main id="main" ref={main} tabIndex={-1} data-view="bench" className="min-h-0 flex-1 outline-none">
        <Outlet />
      </main>
      <Tip />
      <KeysDialog open={keys} onClose={() => setKeys(false)} scopes={scopes} />
    </div>
  );
}
