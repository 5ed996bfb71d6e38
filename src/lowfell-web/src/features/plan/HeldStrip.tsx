import type { ReactNode } from "react";
import { Button } from "../../kit/Button";

type Props = {
  children: ReactNode;
  ask: string;
  /** Where it is not enough that the field is left for this. */
  onAsk?: () => void;
};

/** What is typed is not stored yet, and why: it waits for an answer, and the question for the end of the typing. */
export const HeldStrip = ({ children, ask, onAsk }: Props) => (
  <p
    role="status"
    data-held
    className="fixed bottom-3 left-1/2 z-10 flex max-w-[92vw] -translate-x-1/2 items-center gap-3 rounded-[3px] border border-amber bg-amber-wash px-3 py-1.5 text-xs"
  >
    ▲ Not stored yet: {children}
    <Button aria-haspopup="dialog" onClick={onAsk}>
      {ask}
    </Button>
  </p>
);
