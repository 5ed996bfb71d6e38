import { useEffect, useRef, useState } from "react";
import { Refused } from "../../../api/client";

/**
 * The answer to a question that follows what is on the page. One question is on its way at a time; while it is, only the
 * newest of those that come up is kept, so that a moving slider neither floods the server nor starves the page. A costly
 * question may wait until nothing has changed for a moment.
 */
export function useAnswer<T>(ask: (() => Promise<T>) | null, key: string, quietMs = 0) {
  const [state, setState] = useState<{ answer: T | null; fault: string | null; key: string }>({
    answer: null,
    fault: null,
    key: "",
  });
  const next = useRef<{ ask: () => Promise<T>; key: string } | null>(null);
  const busy = useRef(false);
  const alive = useRef(true);
  const asked = useRef(ask);

  useEffect(() => {
    asked.current = ask;
  });
  useEffect(() => {
    alive.current = true;
    return () => {
      alive.current = false;
    };
  }, []);
  useEffect(() => {
    const put = () => {
      if (!asked.current) return;
      next.current = { ask: asked.current, key };
      if (busy.current) return;
      busy.current = true;
      void (async () => {
        while (next.current && alive.current) {
          const question = next.current;
          next.current = null;
          try {
            const answer = await question.ask();
            if (alive.current) setState({ answer, fault: null, key: question.key });
          } catch (error) {
            if (alive.current && error instanceof Refused)
              setState({
                answer: null,
                fault: error.message,
                key: question.key,
              });
          }
        }
        busy.current = false;
      })();
    };
    if (quietMs === 0) {
      put();
      return;
    }
    const timer = window.setTimeout(put, quietMs);
    return () => window.clearTimeout(timer);
  }, [key, quietMs]);

  return { answer: ask ? state.answer : null, fault: ask ? state.fault : null, fresh: state.key === key };
}
