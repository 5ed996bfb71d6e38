import { useEffect, useState } from "react";
import { whenTypingIsOver } from "./typing";

/** Whether something that wants to be asked may be: it waits until nobody is typing. */
export function useTypingOver(wanted: boolean): boolean {
  const [over, setOver] = useState(false);
  const [was, setWas] = useState(wanted);
  if (was !== wanted) {
    setWas(wanted);
    setOver(false);
  }
  useEffect(() => (wanted && !over ? whenTypingIsOver(() => setOver(true)) : undefined), [wanted, over]);
  return wanted && over;
}
