import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, take } from "../../api/client";
import { useWrite } from "../../api/writes";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { plural } from "../../kit/severity";
import { useSay } from "../../kit/Toast";

const MB = 1_000_000;

/** Photographs that are put away take room; their pictures can be let go for good, by a person who says so. */
export function PutAwayPhotos({ workshopId }: { workshopId: string }) {
  const [send, busy] = useWrite("work");
  const [asks, setAsks] = useState(false);
  const say = useSay();
  const path = { path: { workshopId } };
  const { data } = useQuery({
    queryKey: ["put away photos", workshopId],
    queryFn: ({ signal }) =>
      take(api.GET("/api/workshops/{workshopId}/put-away-photos", { params: path, signal })),
  });
  if (!data?.count) return null;
  const { count } = data;
  const room = `${(data.bytes / MB).toFixed(1)} MB`;
  const letGo = async () => {
    try {
      await send((headers) =>
        api.POST("/api/workshops/{workshopId}/put-away-photos/let-go", { headers, params: path }),
      );
      say(`${plural(count, "picture")} let go.`);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      say(error.message, true);
    }
    setAsks(false);
  };
  return (
    <p className="mt-1 flex flex-wrap items-center gap-2 text-xs text-soft">
      {plural(count, "photograph")} put away {count === 1 ? "takes" : "take"} {room}.
      <Button aria-haspopup="dialog" onClick={() => setAsks(true)}>
        Let the pictures go…
      </Button>
      {asks && (
        <Dialog
          open
          onClose={() => setAsks(false)}
          title="Let these pictures go for good?"
          says={`${plural(count, "photograph")} that ${count === 1 ? "was" : "were"} put away, ${room}. This cannot be undone; what was written about them stays, and so do they in backups of before.`}
        >
          <span className="flex gap-2">
            <Button autoFocus onClick={() => setAsks(false)}>
              Keep them
            </Button>
            <Button tone="plain" disabled={busy} onClick={() => void letGo()}>
              Let them go
            </Button>
          </span>
        </Dialog>
      )}
    </p>
  );
}
