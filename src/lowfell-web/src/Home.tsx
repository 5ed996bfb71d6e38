import { useQuery } from "@tanstack/react-query";
import { Navigate } from "react-router";
import { workshopsQuery } from "./api/queries";
import { Trouble } from "./kit/Trouble";

/** Opens the set that was open last, else the first one; a bench without a set is guided to its first. */
export function Home() {
  const { data, error, refetch } = useQuery(workshopsQuery);
  if (error) return <Trouble error={error} retry={() => void refetch()} />;
  if (!data) return null;
  const last = localStorage.getItem("lowfell.set");
  const open = data.filter((w) => !w.putAwayAt);
  const sets = open.flatMap((w) => w.sets);
  const set = sets.find((s) => s.id === last) ?? sets[0];
  if (set) return <Navigate to={`/plan/${set.id}`} replace />;
  return <Navigate to={`/start/${open[0]?.id ?? "new"}`} replace />;
}
