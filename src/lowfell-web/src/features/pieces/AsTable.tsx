import { seenWords, type Cores, type Piece } from "./cores";

const day = (at: string | null) => at?.slice(0, 16).replace("T", " ") ?? "";

/** The same in words: for readers, and for those who want the figures. */
export function AsTable({ cores, pieces }: { cores: Cores; pieces: readonly Piece[] }) {
  return (
    <div className="mt-2 overflow-auto" tabIndex={0} role="region" aria-label="Cores as a table">
      <table className="text-xs">
        <thead>
          <tr>
            <th scope="col" className="border-b border-line px-2 py-1 text-left">
              Layer
            </th>
            {pieces.map((p) => (
              <th key={p.id} scope="col" className="border-b border-line px-2 py-1 text-left">
                {p.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...cores.lines].reverse().map((l) => (
            <tr key={l.layerId}>
              <th
                scope="row"
                className="border-b border-line px-2 py-1 text-left font-normal whitespace-nowrap"
              >
                {l.number ?? "+"} {l.technique}, {l.paint}
              </th>
              {pieces.map((p) => {
                const cell = p.cells.find((c) => c.layerId === l.layerId)!;
                const said = p.differences.filter((d) => d.layerId === l.layerId);
                return (
                  <td key={p.id} className="border-b border-line px-2 py-1 align-top whitespace-nowrap">
                    {cell.state === "done" ? day(cell.at) : cell.state === "open" ? "—" : cell.state}
                    {cell.pot && <span className="block text-soft">{cell.pot}</span>}
                    {said.map((d) => (
                      <span key={d.fault} className="block text-amber">
                        {d.accepted ? "✓" : "▲"} {d.fault}, {seenWords(d)}
                      </span>
                    ))}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
