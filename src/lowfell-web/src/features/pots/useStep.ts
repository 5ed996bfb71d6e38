import { useState } from "react";
import { Refused } from "../../api/client";
import { useSay } from "../../kit/Toast";
import type { Pot } from "./pots";
import { useRefresh } from "./queries";

export type StepProps = { setId: string; pot: Pot; onClose: () => void };

/** Sends one step of a pot with an id of its own; what was typed stays when it is refused. */
export function useStep(onDone: (pot: Pot) => void) {
  const say = useSay();
  const refresh = useRefresh();
  const [id, setId] = useState(() => crypto.randomUUID() as string);
  const [fault, setFault] = useState<Refused | null>(null);
  const send = async (call: (id: string) => Promise<Pot>, says: (pot: Pot) => string) => {
    try {
      const pot = await call(id);
      // The next press is another step.
      setId(crypto.randomUUID());
      await refresh();
      say(says(pot));
      onDone(pot);
    } catch (error) {
      if (!(error instanceof Refused)) return;
      setFault(error);
      // Somebody else was at this pot: its new state is read, and the next press works from that.
      if (error.refusal.code === "changed-elsewhere") await refresh();
    }
  };
  const faultOf = (...fields: string[]) =>
    fault?.refusal.errors.find((e) => fields.includes(e.field))?.message;
  const general = fault && fault.refusal.errors.length === 0 ? fault.message : "";
  return { send, fault, faultOf, general };
}
