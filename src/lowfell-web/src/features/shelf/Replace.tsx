import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, take, type Schema } from "../../api/client";
import { materialsQuery, standInsQuery } from "../../api/queries";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice } from "../../kit/Field";
import { plural } from "../../kit/severity";
import { useChange } from "../../shared/useChange";
import { differs } from "../../shared/words";
import { Effects } from "./Effects";

/** Puts another material wherever one is used; what that does is shown first, and it is one step of undo. */
export function Replace(props: {
  material: Schema["MaterialCard"];
  workshopId: string;
  onClose: () => void;
}) {
  const { material, workshopId, onClose } = props;
  const [chosen, setChosen] = useState("");
  const materials = useQuery(materialsQuery(workshopId));
  const [change, busy] = useChange(workshopId);
  const near = useQuery(standInsQuery(material.id));
  // What comes nearest stands first, then those of the same kind: they do the same work.
  const options = useMemo(() => {
    const nearest = near.data ?? [];
    const rest = (materials.data ?? []).filter(
      (m) => m.id !== material.id && nearest.every((n) => n.materialId !== m.id),
    );
    return [
      ...nearest.map((n) => ({
        value: n.materialId,
        text: n.name,
        group: "Nearest",
        row: (
          <>
            {n.name}{" "}
            <span className="text-xs opacity-80">
              {differs(n.difference)}, {n.words}
            </span>
          </>
        ),
      })),
      ...rest
        .sort((a, b) => Number(b.kind === material.kind) - Number(a.kind === material.kind))
        .map((m) => ({
          value: m.id,
          text: m.name,
          group: m.kind === material.kind ? `The same kind: ${m.kind}` : "Other kinds",
        })),
    ];
  }, [materials.data, near.data, material]);
  const effect = useQuery({
    queryKey: ["uses", material.id, "replaced by", chosen],
    enabled: !!chosen,
    queryFn: ({ signal }) =>
      take(
        api.POST("/api/shelf/materials/{id}/replace/effect", {
          params: { path: { id: material.id } },
          body: { with: chosen },
          signal,
        }),
      ),
  });
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Something else for ${material.name}`}
      says="Wherever a layer has it, in its mix or as its thinner. You see first what that does; Ctrl Z takes all of it back in one step."
    >
      <Choice
        label="Take instead"
        value={chosen}
        placeholder="type a name"
        options={options}
        onChange={setChosen}
      />
      <div className="mt-3 min-h-24">
        {chosen && effect.isLoading && <p className="text-soft">Working it out…</p>}
        {effect.data && <Effects effect={effect.data} />}
      </div>
      <div className="mt-3 flex gap-2">
        <Button
          tone="go"
          disabled={busy || !effect.data || effect.data.treatments === 0}
          onClick={() =>
            void change(
              (told: Schema["ReplaceTold"]) =>
                `${material.name} is replaced in ${plural(told.treatments, "treatment")}.`,
              (headers) =>
                api.POST("/api/shelf/materials/{id}/replace", {
                  headers,
                  params: { path: { id: material.id } },
                  body: { with: chosen },
                }),
            ).then((done) => done && onClose())
          }
        >
          Replace it everywhere
        </Button>
        <Button onClick={onClose}>Leave as it is</Button>
      </div>
    </Dialog>
  );
}
