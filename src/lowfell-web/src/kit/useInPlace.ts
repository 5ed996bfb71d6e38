import { useEffect, useRef, useState } from "react";

/** Why it could not be stored, or nothing where it was. */
export type Fault = string | null;

/**
 * Words that are changed where they stand: stored with Enter or on leaving, taken back with Escape. One store at a time: what is typed
 * while one is on its way stays, and is stored after it.
 */
export function useInPlace(options: {
  value: string;
  /** Whether what is typed means what stands already. */
  same: (typed: string) => boolean;
  store: (typed: string) => Promise<Fault>;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState("");
  const now = useRef({ typed, ...options });
  const underWay = useRef<string | null>(null);
  const again = useRef(false);
  useEffect(() => {
    now.current = { typed, ...options };
  });
  const store = async () => {
    const { typed: words, same, store: send } = now.current;
    if (words === null || words === underWay.current) return;
    if (underWay.current !== null) {
      again.current = true;
      return;
    }
    if (same(words)) return drop();
    underWay.current = words;
    const refused = await send(words).finally(() => (underWay.current = null));
    // Refused, it stands as it was typed, to be mended.
    if (refused !== null) setFault(refused);
    else setTyped((since) => (since === words ? null : since));
    // Once what was stored is drawn, so that the next goes against that.
    if (again.current) setTimeout(() => void store(), 0);
    again.current = false;
  };
  const drop = () => {
    setTyped(null);
    setFault("");
  };
  return {
    fault,
    field: {
      value: typed ?? options.value,
      onChange: (e: { target: { value: string } }) => {
        now.current.typed = e.target.value;
        setTyped(e.target.value);
        setFault("");
      },
      onBlur: () => void store(),
      onKeyDown: (e: { key: string }) => {
        if (e.key === "Enter") void store();
        else if (e.key === "Escape" && typed !== null) drop();
      },
    },
  };
}
