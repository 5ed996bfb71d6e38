import { useQuery } from "@tanstack/react-query";
import { unfitQuery } from "./shared/unfit/useUnfit";

/** The first view is not slowed by it. */
const LATER_MS = 3000;

/** Whether anything that was told waits to be decided about. */
export function useHasUnfit(workshopId: string | undefined): boolean {
  const { data } = useQuery({
    ...unfitQuery(workshopId ?? ""),
    enabled: !!workshopId,
    queryFn: async (asked) => {
      await new Promise((r) => setTimeout(r, asked.client.getQueryData(asked.queryKey) ? 0 : LATER_MS));
      return unfitQuery(workshopId!).queryFn(asked);
    },
  });
  return (data?.waiting ?? 0) > 0;
}
