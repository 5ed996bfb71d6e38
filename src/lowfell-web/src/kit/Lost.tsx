import { useEffect } from "react";
import { useRouteError } from "react-router";
import { keyboard } from "./keys";

/** Shown when a view cannot be drawn at all. */
export function Lost() {
  const error = useRouteError();
  useEffect(() => keyboard.forget(), []);
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1 className="text-lg font-semibold">This page could not be shown</h1>
      <p className="mt-2 text-soft">
        {error instanceof Error ? error.message : "Something is wrong with the page."}
      </p>
      <p className="mt-2">What you stored is safe in the database.</p>
      <a className="mt-4 inline-block underline" href="/">
        Open Lowfell again
      </a>
    </main>
  );
}
