import { useQuery } from "@tanstack/react-query";
import { api, take } from "./api/client";

const LOOK_MS = 60_000;

/** What goes wrong beside the serving, as long as it does: nothing is lost by it, and somebody should know. */
export function Troubles() {
  const { data } = useQuery({
    queryKey: ["troubles"],
    queryFn: ({ signal }) => take(api.GET("/api/troubles", { signal })),
    refetchInterval: LOOK_MS,
  });
  if (!data?.length) return null;
  return (
    <ul aria-label="Troubles" className="no-print border-b border-amber bg-amber-wash px-4 py-1 text-xs">
      {data.map((t) => (
        <li key={t.what} role="status" data-trouble={t.what}>
          <span aria-hidden="true">▲ </span>
          {t.what}: {t.says}
        </li>
      ))}
    </ul>
  );
}
