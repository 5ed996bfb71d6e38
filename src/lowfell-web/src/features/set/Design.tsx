import { useNavigate } from "react-router";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Choice } from "../../kit/Field";
import { Menu } from "../../kit/Menu";
import { silhouettes, substrates } from "../../shared/choices";
import { Inline } from "../../kit/Inline";
import { Pieces } from "./Pieces";
import { removed, useChange } from "../../shared/useChange";
import { Zones } from "./Zones";

/** A design: what it is called and made of, its zones, its pieces. */
export function Design(props: {
  set: Schema["SetSheet"];
  design: Schema["DesignSheet"];
  at: number;
  of: number;
  sets: Schema["SetCard"][];
}) {
  const { set, design, at, of } = props;
  const [change, busy] = useChange(set.workshopId);
  const navigate = useNavigate();
  const store = (body: Partial<Schema["DesignIn"]>) =>
    change(null, (headers) =>
      api.PUT("/api/designs/{designId}", {
        headers,
        params: { path: { designId: design.id } },
        body: {
          name: null,
          silhouette: null,
          substrate: null,
          position: null,
          ...body,
          version: design.version,
        },
      }),
    );
  const params = { path: { id: design.id } };
  const copy = (setId: string | null, words: string) =>
    void change(words, (headers) =>
      api.POST("/api/designs/{designId}/copies", {
        headers,
        params: { path: { designId: design.id } },
        body: { name: null, setId, designId: null, withWork: null },
      }),
    );
  const others = props.sets.filter((s) => s.id !== set.id && !s.putAwayAt);
  return (
    <article aria-label={design.name}>
      <h2 className="sr-only">{design.name}</h2>
      <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
        <span className="w-64">
          <Inline
            label="Name of the design"
            value={design.name}
            most={120}
            className="text-base font-semibold"
            onStore={(name) => store({ name })}
          />
        </span>
        <span className="w-40">
          <Choice
            label="Made of"
            value={design.substrate}
            options={substrates}
            onChange={(substrate) => void store({ substrate })}
          />
        </span>
        <span className="w-32">
          <Choice
            label="Outline"
            value={design.silhouette}
            options={silhouettes}
            onChange={(silhouette) => void store({ silhouette })}
          />
        </span>
        <span className="ml-auto flex items-center gap-1.5">
          {design.putAwayAt ? (
            <Button
              tone="plain"
              disabled={busy}
              onClick={() =>
                void change(`${design.name} is back.`, (headers) =>
                  api.POST("/api/designs/{id}/bring-back", { headers, params }),
                )
              }
            >
              Bring back
            </Button>
          ) : (
            <>
              <Button
                disabled={busy || at <= 0}
                aria-label={`${design.name} before`}
                onClick={() => void store({ position: at - 1 })}
              >
                ↑
              </Button>
              <Button
                disabled={busy || at >= of - 1}
                aria-label={`${design.name} after`}
                onClick={() => void store({ position: at + 1 })}
              >
                ↓
              </Button>
            </>
          )}
          <span className="text-xs">
            <Menu
              label={`More of ${design.name}`}
              says="More"
              end
              groups={[
                {
                  entries: [
                    {
                      text: "Layers on the plan",
                      run: () => void navigate(`/plan/${set.id}/${design.zones[0]?.id ?? ""}`),
                    },
                    { text: "Copy it here", run: () => copy(null, `${design.name} is there a second time.`) },
                    {
                      text: "Put it away",
                      run: () =>
                        void change(removed, (headers) =>
                          api.POST("/api/designs/{id}/put-away", { headers, params }),
                        ),
                    },
                    {
                      text: "Remove it",
                      run: () =>
                        void change(removed, (headers) =>
                          api.DELETE("/api/designs/{id}", { headers, params }),
                        ),
                    },
                  ],
                },
                ...(others.length > 0
                  ? [
                      {
                        name: "Copy it to",
                        entries: others.map((s) => ({
                          text: s.name,
                          run: () => copy(s.id, `${design.name} is in ${s.name} too.`),
                        })),
                      },
                      {
                        name: "Move it to",
                        entries: others.map((s) => ({
                          text: s.name,
                          run: () =>
                            void change(`${design.name} is in ${s.name} now.`, (headers) =>
                              api.POST("/api/sets/{setId}/merges", {
                                headers,
                                params: { path: { setId: s.id } },
                                body: { fromSetId: set.id, designs: [design.id] },
                              }),
                            ),
                        })),
                      },
                    ]
                  : []),
              ]}
            />
          </span>
        </span>
      </div>
      <Zones set={set} design={design} />
      <Pieces set={set} design={design} />
    </article>
  );
}
