import { useQuery } from "@tanstack/react-query";
import { api, take } from "../../api/client";

const dayAndClock = (at: string) =>
  new Date(at).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });

/** The copies of everything that are made by themselves: whether there are any, and whether the last one went well. */
export function Copies() {
  const { data } = useQuery({
    queryKey: ["copies"],
    queryFn: ({ signal }) => take(api.GET("/api/copies", { signal })),
    staleTime: 60_000,
  });
  if (!data) return null;
  return (
    <p className={`mt-6 text-xs ${data.failedAt ? "text-amber" : "text-soft"}`}>
      {!data.on
        ? "No copies are made by themselves here. Make one with ./lowfell backup."
        : data.failedAt
          ? `▲ The copy of everything could not be made on ${dayAndClock(data.failedAt)}. Look for room on the disk, and make one with ./lowfell backup.`
          : data.newestAt
            ? `A copy of everything is made once a day; the newest is of ${dayAndClock(data.newestAt)}, ${data.kept === 1 ? "the only one so far" : `${data.kept} are kept`}.`
            : "The first copy of everything is made soon, and then one a day."}
    </p>
  );
}
