import { Toast as Radix } from "radix-ui";
import { createContext, useCallback, useContext, useState, type ReactNode } from "react";

type Way = { text: string; run: () => void };
type Notice = { id: number; text: string; bad: boolean; way?: Way };

const Say = createContext<(text: string, bad?: boolean, way?: Way) => void>(() => {});

export const useSay = () => useContext(Say);

/** Short notices at the foot of the page; read out by screen readers. */
export function ToastProvider({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
  const say = useCallback(
    (text: string, bad = false, way?: Way) =>
      setNotices((n) => [...n.slice(-2), { id: Date.now() + Math.random(), text, bad, way }]),
    [],
  );
  return (
    <Say.Provider value={say}>
      <Radix.Provider label="Notices">
        {children}
        {notices.map((n) => (
          <Radix.Root
            key={n.id}
            data-said={n.id}
            duration={n.bad || n.way ? 10_000 : 4_000}
            onOpenChange={(open) => !open && setNotices((all) => all.filter((x) => x.id !== n.id))}
            className={`flex items-baseline gap-3 rounded-[3px] border-l-4 bg-ink px-4 py-2.5 text-sm text-paper ${n.bad ? "border-l-signal" : "border-l-tide"}`}
          >
            <Radix.Description>{n.text}</Radix.Description>
            {n.way && (
              <Radix.Action altText={`${n.way.text}: ${n.text}`} asChild>
                <button type="button" className="ml-auto min-h-6 shrink-0 px-1 underline" onClick={n.way.run}>
                  {n.way.text}
                </button>
              </Radix.Action>
            )}
          </Radix.Root>
        ))}
        {/* At the bench what is tapped most lies at the bottom: there it is said at the top. */}
        <Radix.Viewport className="[[data-at-work]_&]:top-14 [[data-at-work]_&]:bottom-auto fixed bottom-4 left-1/2 z-40 flex w-[460px] max-w-[92vw] -translate-x-1/2 flex-col gap-2" />
      </Radix.Provider>
    </Say.Provider>
  );
}
