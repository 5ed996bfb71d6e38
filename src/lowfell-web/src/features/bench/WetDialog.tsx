import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { labelsOf } from "../../shared/labels";
import { clockAt } from "./says";
import type { NotReady } from "./ready";

/** Asked once before something is laid onto what is not ready for it; the answer stands in the log. */
export function WetDialog(props: { notReady: readonly NotReady[]; onClose: () => void; onDone: () => void }) {
  const { notReady } = props;
  return (
    <Dialog
      open
      bySelf
      onClose={props.onClose}
      title="What lies below is not ready"
      says={`${notReady
        .map(
          (n) =>
            `${labelsOf(n.pieces.map((p) => p.label))}: ${n.technique} is ready from ${clockAt(n.readyAt)}`,
        )
        .join("; ")}.`}
    >
      <div className="flex flex-wrap gap-2">
        <Button className="min-h-14 px-4 text-base" onClick={props.onClose}>
          Wait
        </Button>
        <Button tone="plain" className="min-h-14 px-4 text-base" onClick={props.onDone}>
          Done all the same
        </Button>
      </div>
    </Dialog>
  );
}
