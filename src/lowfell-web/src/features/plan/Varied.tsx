import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, take } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";

/** A plan that lays a patch differently on every piece: on or off, another one, and where it goes. */
export function Varied(props: {
  zoneId: string;
  seed: number | null;
  onChange: (seed: number | null) => void;
}) {
  const [shown, setShown] = useState(false);
  return (
    <div>
      <label className="flex min-h-6 items-center gap-1.5 text-xs">
        <input
          type="checkbox"
          checked={props.seed !== null}
          onChange={(e) => props.onChange(e.target.checked ? 1 : null)}
        />
        Differently on every piece
      </label>
      {props.seed !== null && (
        <div className="flex gap-1.5">
          <Button aria-haspopup="dialog" onClick={() => setShown(true)}>
            Show plan {props.seed}
          </Button>
          <Button onClick={() => props.onChange((props.seed ?? 0) + 1)}>Another</Button>
        </div>
      )}
      {shown && props.seed !== null && (
        <PlanDialog zoneId={props.zoneId} seed={props.seed} onClose={() => setShown(false)} />
      )}
    </div>
  );
}

const places = [
  "top left",
  "top middle",
  "top right",
  "middle left",
  "the middle",
  "middle right",
  "bottom left",
  "bottom middle",
  "bottom right",
];

function PlanDialog(props: { zoneId: string; seed: number; onClose: () => void }) {
  const plan = useQuery({
    queryKey: ["variation", props.zoneId, props.seed],
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/plan/zones/{zoneId}/variation", {
          params: { path: { zoneId: props.zoneId }, query: { seed: props.seed } },
          signal,
        }),
      ),
  });
  return (
    <Dialog
      open
      onClose={props.onClose}
      title={`Plan ${props.seed}: where it goes`}
      says="No piece shares a place, or an amount, with the one before it. The same number gives the same plan again."
    >
      <ol
        aria-label="Where it goes on each piece"
        tabIndex={0}
        className="grid max-h-[50vh] grid-cols-2 gap-x-6 overflow-y-auto text-xs"
      >
        {plan.data?.map((p) => (
          <li key={p.label} className="flex items-center gap-3 border-t border-line py-1">
            <b className="w-8">{p.label}</b>
            <svg width="36" height="27" aria-hidden="true" className="shrink-0">
              {places.map((_, i) => (
                <rect
                  key={i}
                  x={(i % 3) * 12 + 0.5}
                  y={Math.floor(i / 3) * 9 + 0.5}
                  width="11"
                  height="8"
                  fill={p.cells.includes(i) ? "currentColor" : "none"}
                  stroke="var(--line)"
                />
              ))}
            </svg>
            <span>
              {p.amount}: {p.cells.map((c) => places[c]).join(", ")}
            </span>
          </li>
        ))}
      </ol>
      <div className="mt-4 flex gap-2">
        <Button onClick={() => window.print()}>Print</Button>
        <Button tone="plain" onClick={props.onClose}>
          Close
        </Button>
      </div>
    </Dialog>
  );
}
