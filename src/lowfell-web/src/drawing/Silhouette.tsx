import type { Schema } from "../api/client";

// Outlines drawn for Lowfell; the coloured band at the foot of each is the first zone's predicted field colour.
const outline: Record<Schema["Silhouette"], string> = {
  wall: "M3 30V10h58v20zM3 15h58M3 20h58M3 25h58M14 10v5M34 10v5M52 10v5M24 15v5M43 15v5M14 20v5M34 20v5M52 20v5M24 25v5M43 25v5",
  corner: "M3 30V12l26-4v22zM29 30V8l32 5v17zM3 18l26-3M3 24l26-2M29 15l32 4M29 22l32 3",
  house: "M5 31V15L32 4l27 11v16zM25 31V20h11v11M42 19h9v6h-9zM12 19h8v6h-8zM46 8V3h4v7",
  cottage: "M8 31V18L32 6l24 12v13zM15 31v-9h7v9M33 21h8v6h-8zM46 12V6h4v8M4 20L32 6l28 14",
  jetty: "M2 13h60v4H2zM8 17v15M22 17v15M36 17v15M50 17v15M8 25l14-6M36 25l14-6",
  boat: "M4 24h52l-5 7H10zM12 24v-8h16v8M15 16v-5h9v5M34 24l13-16 10 7M57 15l3 6h-6z",
  base: "M8 25a24 7 0 1048 0a24 7 0 10-48 0M8 25v3a24 7 0 0048 0v-3M14 23l6-4 6 4 9-5 6 4 8-2M44 19V8M47 19l2-9M41 18l-2-8",
};

export function Silhouette({ shape, colour }: { shape: Schema["Silhouette"]; colour?: string | null }) {
  return (
    <svg width="56" height="32" viewBox="0 0 64 36" aria-hidden="true" className="shrink-0">
      <path d={outline[shape]} fill={colour ?? "none"} fillOpacity="0.9" stroke="none" />
      <path d={outline[shape]} fill="none" stroke="currentColor" strokeWidth="1.15" strokeLinejoin="round" />
    </svg>
  );
}
