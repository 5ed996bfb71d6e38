import { Dialog } from "./Dialog";
import { Button } from "./Button";

const keys: [string, [string, string][]][] = [
  [
    "Everywhere",
    [
      ["?", "these keys"],
      ["/", "find a material on the shelf"],
      ["p", "back to the plan"],
      ["w", "what to do: remarks over the set"],
      ["t", "the table view"],
      ["j", "jars: mixes and pots"],
      ["h", "house rules"],
      ["k", "stock and what to buy"],
      ["l", "light or dark bench"],
      ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
    ],
  ],
  [
    "In the stack",
    [
      ["↑ ↓", "move between layers"],
      ["Enter", "edit the layer, Escape when done"],
      ["Alt ↑ ↓", "move the layer"],
      ["a", "add a layer above"],
      ["d", "duplicate"],
      ["Delete", "remove"],
      ["[ ]", "peel back, put back"],
      ["r", "apply the first remedy of the layer's remark"],
      ["o", "newest on top, or first to last"],
      ["v", "before and after the layer, in the section"],
      ["m c s", "remarks, colour, sight"],
      ["b", "put the best start into the layer (colour)"],
    ],
  ],
  [
    "At the pots",
    [
      ["↑ ↓", "next mix or pot"],
      ["n", "make a pot of the mix"],
      ["g", "give the pot to pieces"],
      ["u", "top up or thin the pot"],
      ["x", "the pot ran out"],
    ],
  ],
];

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Keys">
      {keys.map(([where, list]) => (
        <section key={where} className="mb-4">
          <h2 className="mb-1 text-sm font-semibold">{where}</h2>
          <dl className="grid grid-cols-[170px_1fr] gap-y-1">
            {list.map(([key, does]) => (
              <div key={key} className="contents">
                <dt>
                  <kbd className="rounded-[2px] border border-line bg-paper px-1.5 text-xs">{key}</kbd>
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
      <Button tone="plain" onClick={onClose}>
        Close
      </Button>
    </Dialog>
  );
}
