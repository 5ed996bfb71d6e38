import { Refused } from "../api/client";
import { Button } from "./Button";

/** A view could not be read: what happened, what is safe, what to do. */
export function Trouble({ error, retry }: { error: unknown; retry: () => void }) {
  const gone = error instanceof Refused && error.refusal.status === 404;
  return (
    <div role="alert" className="mx-auto max-w-xl p-10">
      <h1 className="text-lg font-semibold">{gone ? "That is not here" : "This could not be read"}</h1>
      <p className="mt-2">{error instanceof Error ? error.message : "Something went wrong."}</p>
      <div className="mt-4 flex gap-2">
        {gone ? (
          <a href="/" className="underline">
            Open the last set
          </a>
        ) : (
          <Button tone="plain" onClick={retry}>
            Try again
          </Button>
        )}
      </div>
    </div>
  );
}
