import { useWaiting, wake } from "../api/writes";

/** Says that changes wait for the server, and that nothing is lost by it. */
export function Waiting() {
  const { count, why } = useWaiting();
  if (count === 0) return null;
  return (
    <p
      role="status"
      data-waiting={count}
      className="no-print border-b border-amber bg-amber-wash px-4 py-1 text-xs"
    >
      <span aria-hidden="true">▲ </span>
      {count === 1 ? "One change waits" : `${count} changes wait`} here and will be sent by{" "}
      {count === 1 ? "itself" : "themselves"} when the server takes {count === 1 ? "it" : "them"}. {why}{" "}
      <button type="button" className="min-h-6 underline" onClick={wake}>
        Try now
      </button>
    </p>
  );
}
