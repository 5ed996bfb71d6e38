import type { Schema } from "../api/client";

type Region = Schema["Region"];

// A stone with its joint around it, 64 by 44, seen from the front; what a region takes in is filled.
const STONE = "M10 8H54V36H10Z";
const fills: Record<Region, string> = {
  all: "M2 2H62V42H2Z",
  raised: "M10 8H54V12H10ZM10 8H14V36H10ZM50 8H54V36H50ZM10 32H54V36H10Z",
  recess: "M2 2H62V8H2ZM2 36H62V42H2ZM2 8H10V36H2ZM54 8H62V36H54Z",
  upward: "M10 8H54V15H10Z",
  "lower third": "M2 29H62V42H2Z",
  edges: "M10 8H54V11H10ZM10 8H13V36H10ZM51 8H54V36H51ZM10 33H54V36H10Z",
  spots:
    "M17 15a3 3 0 106 0a3 3 0 10-6 0M38 22a4 4 0 108 0a4 4 0 10-8 0M24 29a2.5 2.5 0 105 0a2.5 2.5 0 10-5 0",
  "within rim": "M14 12H50V32H14Z",
  "around feet": "M4 34H60V42H4Z",
  "leading edges": "M10 8H54V12H10ZM50 8H54V36H50Z",
  "one in four": "M10 8H32V22H10Z",
  "recessed line": "M10 21H54V23H10Z",
};

/** Where a layer goes, drawn on one stone. */
export function RegionMark({ region, colour }: { region: Region; colour: string }) {
  return (
    <svg viewBox="0 0 64 44" aria-hidden="true" className="h-16 w-24 shrink-0 rounded-[3px] bg-ground">
      <path d={STONE} fill="none" stroke="var(--on-ground)" strokeOpacity="0.6" />
      <path d={fills[region]} fill={colour} fillRule="evenodd" stroke="var(--on-ground)" strokeWidth="0.6" />
    </svg>
  );
}
