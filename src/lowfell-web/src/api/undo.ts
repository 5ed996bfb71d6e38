import { readAgain } from "./cache";
import { api, Refused, type Schema } from "./client";
import { all } from "./moved";
import { write } from "./writes";

type Way = "undo" | "redo";
type Say = (text: string, bad?: boolean, way?: { text: string; run: () => void }) => void;

let running: Promise<unknown> = Promise.resolve();

/** How often a step was turned from this page: what is read again because of it is no news from another window. */
let turning = 0;
export const isTurning = () => turning > 0;

/** Turns the last step back, or forth again, or the one named; everything that shows something of it is read again. */
export function turn(workshopId: string, which: Way, step: string | null = null): Promise<Schema["Turned"]> {
  // Pressed again while the first is on its way, the second comes after it.
  const now = running.then(async () => {
    turning++;
    try {
      const turned = await write((headers) =>
        api.POST(which === "undo" ? "/api/workshops/{workshopId}/undo" : "/api/workshops/{workshopId}/redo", {
          params: { path: { workshopId } },
          headers,
          body: { step },
        }),
      );
      await readAgain(all);
      return turned;
    } finally {
      // What was read is drawn before the next look at it.
      window.setTimeout(() => turning--, 0);
    }
  });
  running = now.catch(() => undefined);
  return now;
}

/** Turns a step and says which, with the way back. */
export async function turnAndSay(workshopId: string, which: Way, say: Say, step: string | null = null) {
  try {
    const { words } = await turn(workshopId, which, step);
    const back: Way = which === "undo" ? "redo" : "undo";
    say(`${which === "undo" ? "Undone" : "Done again"}: ${words}.`, false, {
      text: back === "redo" ? "Redo" : "Undo",
      run: () => void turnAndSay(workshopId, back, say, step),
    });
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    say(error.message, true);
  }
}
