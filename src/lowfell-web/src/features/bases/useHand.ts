import { useCallback, useEffect, useRef, useState } from "react";
import { api } from "../../api/client";
import { useChange } from "../../shared/useChange";
import type { Base, Element, Tray } from "./types";

const SETTLES_MS = 350;

/** What a hand wants of a base: these things on it, or as it was drawn. */
type Wanted = readonly Element[] | "as drawn";

/** What a hand does to one base: shown at once, and stored when the hand rests; what came meanwhile follows. */
export function useHand(tray: Tray, base: Base) {
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [change, busy] = useChange(tray.workshopId);
  const newest = useRef({ wanted, version: tray.version, sent: null as Wanted | null });
  useEffect(() => {
    newest.current.wanted = wanted;
    newest.current.version = tray.version;
  });
  const send = useCallback(
    async (now: Wanted) => {
      newest.current.sent = now;
      const drawn = now === "as drawn";
      const stored = await change(drawn ? `${base.label} is as it was drawn.` : null, (headers) =>
        api.PUT("/api/bases/{setId}/{designId}/hand", {
          params: { path: { setId: tray.setId, designId: tray.designId } },
          headers,
          body: {
            version: newest.current.version,
            pieceId: base.pieceId,
            elements: drawn ? null : [...now],
          },
        }),
      );
      // Refused, or nothing wanted since: what stands is shown.
      setWanted((since) => (!stored || since === now ? null : since));
    },
    [change, tray.setId, tray.designId, base.pieceId, base.label],
  );
  useEffect(() => {
    if (!wanted || busy || wanted === newest.current.sent) return;
    const timer = setTimeout(() => void send(wanted), SETTLES_MS);
    return () => clearTimeout(timer);
  }, [wanted, busy, send]);
  // Whoever goes to another base before the hand has rested loses nothing.
  useEffect(() => {
    const now = newest.current;
    return () => {
      if (now.wanted && now.wanted !== now.sent) void send(now.wanted);
    };
  }, [send]);
  return {
    elements: wanted && wanted !== "as drawn" ? wanted : base.elements,
    waits: wanted !== null,
    put: setWanted as (elements: readonly Element[]) => void,
    redraw: () => setWanted("as drawn"),
  };
}
