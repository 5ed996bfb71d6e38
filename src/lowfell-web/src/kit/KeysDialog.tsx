import { useState } from "react";
import { Button } from "./Button";
import { Dialog } from "./Dialog";
import type { Command, Scope } from "./keyboard";
import { giveKey, keyOf, letters } from "./keys";

/** What can be done here, with its keys; the keys can be changed, and single letters switched off. */
export function KeysDialog(props: { open: boolean; onClose: () => void; scopes: readonly Scope[] }) {
  const [on, setOn] = useState(letters.on);
  const [asked, setAsked] = useState<string | null>(null);
  const [, redraw] = useState(0);
  const all = props.scopes.flatMap((s) => s.commands);
  const give = (c: Command, key: string) => {
    setAsked(null);
    giveKey(c.id, key === c.key ? null : key);
    redraw((n) => n + 1);
  };
  return (
    <Dialog open={props.open} onClose={props.onClose} title="Keys">
      <label className="mb-3 flex min-h-6 items-center gap-2">
        <input
          type="checkbox"
          checked={on}
          onChange={(e) => {
            letters.turn(e.target.checked);
            setOn(e.target.checked);
          }}
        />
        Single letters do what is listed here
      </label>
      {props.scopes
        .filter((s) => s.commands.length > 0)
        .map((scope) => (
          <section key={scope.name} className="mb-4">
            <h2 className="mb-1 text-sm font-semibold">{scope.name}</h2>
            <dl className="grid grid-cols-[170px_1fr] gap-y-1">
              {scope.commands.map((c) => {
                const key = keyOf(c);
                const twice = all.some((o) => o !== c && o.run && c.run && keyOf(o) === key);
                return (
                  <div key={c.id} className="contents">
                    <dt>
                      {c.run && key.length === 1 ? (
                        <button
                          type="button"
                          aria-label={`Change the key for: ${c.says}`}
                          className="min-h-6 rounded-[2px] border border-line bg-paper px-1.5 text-xs hover:border-ink"
                          onClick={() => setAsked(c.id)}
                          onKeyDown={(e) => {
                            if (asked !== c.id || e.key.length !== 1 || e.ctrlKey || e.metaKey || e.altKey)
                              return;
                            e.preventDefault();
                            give(c, e.key);
                          }}
                        >
                          {asked === c.id ? "press a key" : key}
                        </button>
                      ) : (
                        <kbd className="rounded-[2px] border border-line bg-paper px-1.5 text-xs">
                          {key.replaceAll("+", " ")}
                        </kbd>
                      )}
                    </dt>
                    <dd className={on || key.length > 1 ? "" : "text-soft"}>
                      {c.says}
                      {twice && <span className="text-signal"> ▲ another command here has this key too</span>}
                    </dd>
                  </div>
                );
              })}
            </dl>
          </section>
        ))}
      <Button tone="plain" onClick={props.onClose}>
        Close
      </Button>
    </Dialog>
  );
}
