import type { Schema } from "../../api/client";
import { Button, IconButton } from "../../kit/Button";
import { Combobox } from "../../kit/Combobox";
import { Choice, TextField } from "../../kit/Field";
import { kinds, usual, type Draft, type Kind } from "./levels";
import type { Layer } from "./types";

/** What is varied: which layer, in what, and at which levels. */
export function FactorFields(props: {
  number: number;
  draft: Draft;
  layers: readonly Layer[];
  materials: readonly Schema["MaterialCard"][];
  fault: string | undefined;
  onChange: (draft: Draft) => void;
  onRemove: () => void;
}) {
  const { draft, layers, materials } = props;
  const named = (l: Layer) =>
    `${layers.indexOf(l) + 1} ${l.technique} ${l.paint.map((p) => materials.find((m) => m.id === p.materialId)?.name ?? "").join(" + ")}`;
  const of = (layerId: string) => layers.find((l) => l.id === layerId)!;
  const begin = (layerId: string, kind: Kind): Draft => ({
    layerId,
    kind,
    text: usual(of(layerId), kind),
    materials:
      kind === "paint"
        ? of(layerId)
            .paint.slice(0, 1)
            .map((p) => p.materialId)
        : [],
  });
  return (
    <fieldset className="grid gap-2 rounded-[3px] border border-line px-3 pt-1 pb-3">
      <legend className="px-1 text-xs text-soft">Varied, {props.number}</legend>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,10rem)_auto] items-end gap-2 max-sm:grid-cols-1">
        <Choice
          label={`Layer ${props.number}`}
          value={draft.layerId}
          options={layers.filter((l) => l.paint.length > 0).map((l) => ({ value: l.id, text: named(l) }))}
          onChange={(id) => props.onChange(begin(id, draft.kind))}
        />
        <Choice<Kind>
          label={`In what ${props.number}`}
          value={draft.kind}
          options={(Object.keys(kinds) as Kind[]).map((k) => ({ value: k, text: kinds[k].words }))}
          onChange={(kind) => props.onChange(begin(draft.layerId, kind))}
        />
        <IconButton name={`Do not vary ${props.number}`} onClick={props.onRemove}>
          ×
        </IconButton>
      </div>
      {draft.kind === "paint" ? (
        <>
          <ul className="flex flex-wrap gap-1.5">
            {draft.materials.map((id) => (
              <li key={id}>
                <Button
                  aria-label={`Without ${materials.find((m) => m.id === id)?.name ?? "it"}`}
                  onClick={() =>
                    props.onChange({ ...draft, materials: draft.materials.filter((m) => m !== id) })
                  }
                >
                  {materials.find((m) => m.id === id)?.name ?? "?"} ×
                </Button>
              </li>
            ))}
          </ul>
          <Combobox
            label={`Or with ${props.number}`}
            value=""
            placeholder="Type a name…"
            options={materials
              .filter((m) => m.kind !== "thinner" && !draft.materials.includes(m.id))
              .map((m) => ({ value: m.id, text: m.name }))}
            fault={props.fault}
            onChange={(id) => id && props.onChange({ ...draft, materials: [...draft.materials, id] })}
          />
        </>
      ) : draft.kind === "whether" ? (
        <p className="text-xs text-soft">Laid on one half of the tile, left out on the other.</p>
      ) : (
        <TextField
          label={`Levels ${props.number}`}
          value={draft.text}
          fault={props.fault}
          hint={`For example ${kinds[draft.kind].example}`}
          onChange={(e) => props.onChange({ ...draft, text: e.target.value })}
        />
      )}
    </fieldset>
  );
}
