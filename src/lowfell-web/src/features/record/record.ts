import type { Schema } from "../../api/client";

/** A layer as it was really laid: on which pieces, and from which pots. */
export type Done = {
  id: string;
  number: number | null;
  technique: Schema["Technique"];
  paint: string;
  colour: string | null;
  on: string[];
  pots: string[];
};

/** The layers of a zone that lie on any of its pieces, bottom first. */
export function asDone(zone: Schema["CoresReading"]): Done[] {
  return zone.lines.flatMap((line) => {
    const cells = zone.pieces.flatMap((p) =>
      p.cells
        .filter((c) => c.layerId === line.layerId && c.state === "done")
        .map((c) => ({ ...c, label: p.label })),
    );
    if (cells.length === 0) return [];
    return [
      {
        id: line.layerId,
        number: line.number,
        technique: line.technique as Schema["Technique"],
        paint: line.paint,
        colour: cells[0]!.colour ?? line.colour,
        on: cells.map((c) => c.label),
        pots: [...new Set(cells.flatMap((c) => (c.pot ? [c.pot] : [])))],
      },
    ];
  });
}

/** In what pieces differ, each thing once with all pieces it is true of. */
export function differs(zone: Schema["CoresReading"]): { words: string; on: string[] }[] {
  const found = new Map<string, string[]>();
  for (const piece of zone.pieces)
    for (const { words } of piece.differences) found.set(words, [...(found.get(words) ?? []), piece.label]);
  return [...found].map(([words, on]) => ({ words: words.replace(/\.$/, ""), on }));
}
