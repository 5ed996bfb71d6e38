import { useState } from "react";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Choice } from "../../kit/Field";
import { box } from "../../kit/Frame";
import { Menu } from "../../kit/Menu";
import { plural } from "../../kit/severity";
import { Cell, Row, Table } from "../../kit/Table";
import { Wide } from "../../kit/Wide";
import { Inline } from "../../kit/Inline";
import { removed, useChange } from "../../shared/useChange";

/** The pieces of a design: labels, rim numbers, what is fixed to what, spares. */
export function Pieces({ set, design }: { set: Schema["SetSheet"]; design: Schema["DesignSheet"] }) {
  const [change, busy] = useChange(set.workshopId);
  const [count, setCount] = useState("1");
  const here = design.pieces.filter((p) => !p.putAwayAt);
  const away = design.pieces.filter((p) => p.putAwayAt);
  const more = Number(count);
  const whole = Number.isInteger(more) && more >= 1 && more <= 500;
  return (
    <section aria-labelledby="pieces" className="mt-6">
      <div className="flex flex-wrap items-center gap-3">
        <h3 id="pieces" className="text-sm font-semibold">
          Pieces
        </h3>
        <span className="text-xs text-soft">
          {plural(here.filter((p) => !p.parentId).length, "piece")} to paint
        </span>
        <form
          className="ml-auto flex items-center gap-1.5 text-xs"
          onSubmit={(e) => {
            e.preventDefault();
            if (whole)
              void change(`${plural(more, "piece")} more.`, (headers) =>
                api.POST("/api/designs/{designId}/pieces", {
                  headers,
                  params: { path: { designId: design.id } },
                  body: { count: more, labels: null, spare: null, parentId: null },
                }),
              );
          }}
        >
          <input
            aria-label="How many more"
            inputMode="numeric"
            value={count}
            onChange={(e) => setCount(e.target.value)}
            className={`${box} max-w-14 border-line text-right`}
          />
          <Button type="submit" disabled={busy || !whole}>
            Add pieces
          </Button>
        </form>
      </div>
      <Wide label={`Pieces of ${design.name}`}>
        <Table
          caption={`Pieces of ${design.name}`}
          heads={[
            { text: "Label" },
            { text: "on the rim" },
            { text: "fixed to" },
            { text: "spare" },
            { text: "what to do", hidden: true },
          ]}
        >
          {here.map((p) => (
            <Piece key={p.id} piece={p} set={set} design={design} pieces={here} />
          ))}
          {away.map((p) => (
            <Row key={p.id} head={<span className="text-soft">{p.label}</span>}>
              <Cell colSpan={3} className="text-soft">
                put away{p.worked && ": work was done on it"}
              </Cell>
              <Cell className="text-right">
                <Button
                  disabled={busy}
                  aria-label={`Bring ${p.label} back`}
                  onClick={() =>
                    void change(`${p.label} is back.`, (headers) =>
                      api.POST("/api/pieces/{id}/bring-back", { headers, params: { path: { id: p.id } } }),
                    )
                  }
                >
                  Bring back
                </Button>
              </Cell>
            </Row>
          ))}
        </Table>
      </Wide>
    </section>
  );
}

function Piece(props: {
  piece: Schema["PieceSheet"];
  set: Schema["SetSheet"];
  design: Schema["DesignSheet"];
  pieces: Schema["PieceSheet"][];
}) {
  const { piece, set, design, pieces } = props;
  const [change, busy] = useChange(set.workshopId);
  const store = (body: Partial<Schema["PieceIn"]>, words: string | null = null) =>
    change(words, (headers) =>
      api.PUT("/api/pieces/{pieceId}", {
        headers,
        params: { path: { pieceId: piece.id } },
        body: {
          label: null,
          rimNumber: null,
          parentId: null,
          spare: null,
          designId: null,
          clear: null,
          ...body,
          version: piece.version,
        },
      }),
    );
  const params = { path: { id: piece.id } };
  const parents = pieces.filter((p) => p.id !== piece.id && !p.parentId);
  const holds = pieces.some((p) => p.parentId === piece.id);
  return (
    <Row
      head={
        <Inline
          label={`Label of ${piece.label}`}
          value={piece.label}
          most={40}
          className="max-w-28"
          onStore={(label) => store({ label })}
        />
      }
    >
      <Cell>
        <Inline
          label={`Number on the rim of ${piece.label}`}
          value={piece.rimNumber}
          most={20}
          empty
          className="max-w-24"
          onStore={(rimNumber) => store({ rimNumber })}
        />
      </Cell>
      <Cell>
        {holds ? (
          <span className="text-soft">holds others</span>
        ) : (
          <span className="block max-w-44">
            <Choice
              label={`${piece.label} is fixed to`}
              hideLabel
              value={piece.parentId ?? ""}
              options={[
                { value: "", text: "nothing" },
                ...parents.map((p) => ({ value: p.id, text: p.label })),
              ]}
              onChange={(parentId) => void store(parentId ? { parentId } : { clear: ["parentId"] })}
            />
          </span>
        )}
      </Cell>
      <Cell>
        <input
          type="checkbox"
          aria-label={`${piece.label} is a spare`}
          checked={piece.spare}
          disabled={busy}
          onChange={(e) => void store({ spare: e.target.checked })}
        />
      </Cell>
      <Cell className="text-right">
        <Menu
          label={`More of ${piece.label}`}
          says="More"
          end
          groups={[
            {
              entries: [
                {
                  text: "Put it away",
                  run: () =>
                    void change(removed, (headers) =>
                      api.POST("/api/pieces/{id}/put-away", { headers, params }),
                    ),
                },
                {
                  text: "Remove it",
                  run: () =>
                    void change(removed, (headers) => api.DELETE("/api/pieces/{id}", { headers, params })),
                },
              ],
            },
            ...(set.designs.length > 1
              ? [
                  {
                    name: "It is one of",
                    entries: set.designs
                      .filter((d) => d.id !== design.id && !d.putAwayAt)
                      .map((d) => ({
                        text: d.name,
                        run: () => void store({ designId: d.id }, `${piece.label} is one of ${d.name} now.`),
                      })),
                  },
                ]
              : []),
          ]}
        />
      </Cell>
    </Row>
  );
}
