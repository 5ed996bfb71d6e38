import { useState } from "react";

export type Act = {
  id: string;
  key: string;
  words: string;
  says: string;
  /** The one that is pressed most. */
  main?: boolean;
  off?: boolean;
  run: () => void;
};

/** Of those up to taking back there is always room, on a phone too. */
const always = (acts: readonly Act[]) => acts.findIndex((a) => a.id === "back") + 1;

/** A tap for everything that happens: big enough for a finger with paint on it. */
export function Actions({ acts }: { acts: readonly Act[] }) {
  const [all, setAll] = useState(false);
  return (
    <div
      role="group"
      aria-label="What happened"
      className="grid grid-cols-2 gap-2 max-md:sticky max-md:bottom-0 max-md:-mx-3 max-md:max-h-[46vh] max-md:overflow-y-auto max-md:border-t max-md:border-line max-md:bg-paper max-md:p-3 md:col-span-2 md:grid-cols-7"
    >
      {acts.map((a, i) => (
        <button
          key={a.id}
          type="button"
          data-act={a.id}
          disabled={a.off}
          onClick={() => {
            setAll(false);
            a.run();
          }}
          className={`flex min-h-14 flex-col items-start justify-center rounded-[3px] border px-3 py-1 text-left text-base leading-tight font-semibold disabled:opacity-45 ${
            a.main
              ? "border-tide bg-tide text-on-tide max-md:col-span-2 max-md:min-h-16"
              : "border-line bg-card text-ink"
          } ${i >= always(acts) && !all ? "max-md:hidden" : ""}`}
        >
          {a.words}
          <kbd aria-hidden="true" className="text-xs font-normal opacity-75 max-md:hidden">
            {a.key}
            {a.id === "done" && " · page down"}
            {a.id === "back" && " · page up"}
          </kbd>
        </button>
      ))}
      <button
        type="button"
        aria-expanded={all}
        className="min-h-14 rounded-[3px] border border-line bg-card px-3 text-left text-base font-semibold md:hidden"
        onClick={() => setAll(!all)}
      >
        {all ? "Less" : "More"}
      </button>
    </div>
  );
}
