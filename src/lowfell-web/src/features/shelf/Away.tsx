import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import { awayQuery } from "../../api/queries";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { plural } from "../../kit/severity";
import { Swatch } from "../../kit/Swatch";
import { useChange } from "../../shared/useChange";

/** What was taken off the shelf; nothing of it is lost. */
export function Away({ workshopId }: { workshopId: string }) {
  const { data } = useQuery(awayQuery(workshopId));
  const [open, setOpen] = useState(false);
  const [change, busy] = useChange(workshopId);
  if (!data || data.length === 0) return null;
  return (
    <>
      <Button aria-haspopup="dialog" onClick={() => setOpen(true)}>
        Off the shelf: {data.length}
      </Button>
      {open && (
        <Dialog
          open
          onClose={() => setOpen(false)}
          title="Off the shelf"
          says="Layers that have one of these keep it. What was done with them stays as it was."
        >
          <ul>
            {data.map((m) => (
              <li key={m.id} className="flex items-center gap-2 border-t border-line py-1.5 text-sm">
                <Swatch colour={m.colour ?? m.overWhite ?? "transparent"} name="" className="size-5" />
                <span className="min-w-0 flex-1">
                  {m.name}
                  <span className="block text-xs text-soft">
                    {m.kind}
                    {m.uses > 0 && `, still in ${plural(m.uses, "layer")}`}
                  </span>
                </span>
                <Button
                  disabled={busy}
                  aria-label={`Put ${m.name} back`}
                  onClick={() =>
                    void change(`${m.name} is on the shelf again.`, (headers) =>
                      api.POST("/api/shelf/materials/{id}/bring-back", {
                        headers,
                        params: { path: { id: m.id } },
                      }),
                    )
                  }
                >
                  Put back
                </Button>
              </li>
            ))}
          </ul>
        </Dialog>
      )}
    </>
  );
}
