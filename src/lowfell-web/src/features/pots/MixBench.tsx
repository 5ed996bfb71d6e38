import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Refused, type Schema } from "../../api/client";
import { Jar } from "../../drawing/Jar";
import { jarSize } from "../../drawing/jar";
import { Button } from "../../kit/Button";
import { Choice } from "../../kit/Field";
import { Key } from "../../kit/Key";
import { useCommands } from "../../kit/keys";
import { differs, ml } from "../../shared/words";
import { BottleDialog } from "./BottleDialog";
import { JarSays } from "./JarSays";
import { JarTable, type Change } from "./JarTable";
import { draftOf, emptyJar, isDraft, techniques, tools } from "./jarDraft";
import { MakePot } from "./MakePot";
import { MixMenu } from "./MixMenu";
import { Needs, Places } from "./MixWords";
import { NumberField } from "../../kit/NumberField";
import { PutIn } from "./PutIn";
import { Wide } from "../../kit/Wide";
import { useDraft } from "../../kit/form/useDraft";
import { short, type Draft, type Mix, type Reading } from "./pots";
import { look, useRefresh } from "./queries";
import { Alert } from "../../kit/Alert";

type Fault = { materialId: string; measure: NonNullable<Schema["JarMeasure"]>; message: string };

/** A mix as a jar: every number can be typed, the others follow, and what it will look like stands beside it. */
export function MixBench(props: {
  setId: string;
  mix?: Mix;
  start?: Draft;
  reading: Reading;
  materials: Schema["MaterialCard"][];
  onMade: (potId: string) => void;
}) {
  const { setId, mix, materials } = props;
  const queries = useQueryClient();
  const refresh = useRefresh();
  const [planned] = useState(() => props.start ?? (mix ? draftOf(mix) : emptyJar));
  // A mix of the plan follows the plan; what is put together freely has no other home.
  const kept = mix ? null : `jar ${setId} ${props.start ? `remix ${props.start.standsFor ?? ""}` : "free"}`;
  const [draft, setDraft] = useDraft<Draft>(kept, planned, isDraft);
  const [fault, setFault] = useState<Fault | null>(null);
  const [making, setMaking] = useState(false);
  const [bottle, setBottle] = useState<string | null>(null);
  const { standsFor = "", ...body } = draft;
  const meant = mix?.recipeKey ?? standsFor;
  const standsIn = props.reading.mixes.find((m) => m.recipeKey === standsFor);
  const jar = useQuery({
    queryKey: ["pots", setId, "jar", body],
    queryFn: ({ signal }) => look(setId, body, signal),
    placeholderData: keepPreviousData,
    enabled: body.parts.length > 0,
  });
  useCommands("At the mix", [
    { id: "mix make", key: "n", says: "make a pot of the mix", run: () => setMaking(true) },
  ]);

  const change = async ({ materialId, measure, value }: Change) => {
    try {
      const said = await look(setId, { ...body, change: { materialId, measure, value } });
      const next = {
        ...body,
        parts: said.lines.map((l) => ({ materialId: l.materialId, parts: Number(l.parts) })),
        totalMl: said.totalMl,
      };
      queries.setQueryData(["pots", setId, "jar", next], said);
      setFault(null);
      setDraft({ ...next, standsFor });
    } catch (error) {
      if (error instanceof Refused) setFault({ materialId, measure, message: error.message });
    }
  };
  const put = (materialId: string) => {
    // A new component begins with as much as the smallest of the others.
    const parts = draft.parts.length === 0 ? 1 : Math.min(...draft.parts.map((p) => p.parts));
    setDraft({ ...draft, parts: [...draft.parts, { materialId, parts }] });
  };
  const said = jar.data;
  const changed = mix ? said && said.recipeKey !== mix.recipeKey : false;
  const title = mix?.name ?? (props.start ? "A remix" : "Mixed freely");
  return (
    <div className="min-h-0 px-5 py-3 max-md:px-0 md:overflow-y-auto">
      <div className="flex items-start gap-3">
        <div className="min-w-0 flex-1">
          <h2 className="text-base font-semibold">{title}</h2>
          {mix ? (
            <Needs mix={mix} />
          ) : (
            <p className="text-xs text-soft">
              {standsIn
                ? `It stands in for ${standsIn.name}, ${standsIn.dilution}.`
                : "What you mix here goes on no layer until you say so."}
            </p>
          )}
        </div>
        {changed && (
          <Button
            onClick={() => {
              setFault(null);
              setDraft(planned);
            }}
          >
            Back to the plan
          </Button>
        )}
        <MixMenu
          workshopId={props.reading.workshopId}
          parts={draft.parts}
          title={mix?.name ?? ""}
          mixes={props.reading.mixes}
          {...(!mix && { onTake: (parts) => setDraft({ ...draft, parts }) })}
        />
        <Button tone="go" disabled={!said} aria-haspopup="dialog" onClick={() => setMaking(true)}>
          Make a pot… <Key>n</Key>
        </Button>
      </div>
      {jar.error && (
        <Alert className="mt-2">
          {jar.error instanceof Refused ? jar.error.message : "This could not be worked out."}
        </Alert>
      )}
      {draft.parts.length === 0 && (
        <div className="mt-3">
          <p className="text-soft">The jar is empty. Put a material in to begin.</p>
          <PutIn draft={draft} materials={materials} onPut={put} />
        </div>
      )}
      {said && draft.parts.length > 0 && (
        <div className="mt-3 grid grid-cols-1 gap-5 xl:grid-cols-[minmax(0,1fr)_270px]">
          <div className="min-w-0">
            <div className="flex gap-4">
              <Jar
                title={`${title}: ${said.lines.map((l) => `${short(l.ml)} ml ${l.name}`).join(", ")}`}
                fullMl={jarSize(said.totalMl)}
                parts={said.lines.map((l) => ({
                  name: l.name,
                  ml: l.ml,
                  colour: l.colour,
                  thinner: l.thinner,
                }))}
              />
              <div className="min-w-0 flex-1 text-xs">
                <div className="flex flex-wrap items-end gap-2">
                  <div className="w-[92px]">
                    <NumberField
                      label="In all"
                      unit="ml"
                      value={said.totalMl}
                      least={0.1}
                      most={5000}
                      onSet={(totalMl) => setDraft({ ...draft, totalMl })}
                    />
                  </div>
                  <div className="w-[120px]">
                    <Choice
                      label="For"
                      value={draft.technique}
                      options={techniques}
                      onChange={(technique) => setDraft({ ...draft, technique })}
                    />
                  </div>
                  <div className="w-[104px]">
                    <Choice
                      label="With"
                      value={draft.tool}
                      options={tools}
                      onChange={(tool) => setDraft({ ...draft, tool })}
                    />
                  </div>
                </div>
                <dl className="mt-3 grid grid-cols-[112px_1fr] gap-y-1">
                  <dt className="text-soft">Thinned</dt>
                  <dd data-dilution>
                    <b>{said.dilution}</b>
                    {said.thinnerShare > 0 && ` · ${Math.round(said.thinnerShare * 100)} % of the mix`}
                    {said.consistency && ` · ${said.consistency}`}
                  </dd>
                  <dt className="text-soft">Fewest drops</dt>
                  <dd>
                    <b>{said.fewest.counts.join(" + ")}</b>{" "}
                    <span className="text-soft">
                      {short(said.fewest.ml)} ml, off the recipe: {differs(said.fewest.difference)}
                    </span>
                  </dd>
                  <dt className="text-soft">The shelf allows</dt>
                  <dd>
                    {said.mostMl === null
                      ? "as much as you like"
                      : `${ml(said.mostMl)}, then ${said.mostLimit} is gone`}
                    {said.mostMl !== null && said.mostMl >= 0.1 && said.mostMl < said.totalMl && (
                      <button
                        type="button"
                        className="ml-2 min-h-6 underline"
                        onClick={() => setDraft({ ...draft, totalMl: said.mostMl! })}
                      >
                        Mix that much
                      </button>
                    )}
                  </dd>
                </dl>
              </div>
            </div>
            <Wide label="What is in the jar">
              <JarTable
                look={said}
                fault={fault}
                onChange={(c) => void change(c)}
                onRemove={(id) =>
                  setDraft({ ...draft, parts: draft.parts.filter((p) => p.materialId !== id) })
                }
                onBottle={setBottle}
              />
            </Wide>
            <PutIn draft={draft} materials={materials} onPut={put} />
            {mix && <Places mix={mix} />}
          </div>
          <JarSays
            setId={setId}
            look={said}
            recipeKey={mix && mix.ml > 0 && !changed ? mix.recipeKey : undefined}
            draft={draft}
            onDraft={(d) => setDraft({ ...draft, ...d })}
          />
        </div>
      )}
      {making && said && (
        <MakePot
          setId={setId}
          look={said}
          standsFor={meant}
          same={said.recipeKey === meant}
          standsIn={!!props.start}
          name={title}
          taken={props.reading.pots.map((p) => p.label)}
          onClose={() => setMaking(false)}
          onMade={(id) => {
            setMaking(false);
            setDraft(planned);
            props.onMade(id);
          }}
        />
      )}
      {bottle && (
        <BottleDialog
          workshopId={props.reading.workshopId}
          material={materials.find((m) => m.id === bottle)!}
          onClose={() => setBottle(null)}
          onDone={() => void refresh()}
        />
      )}
    </div>
  );
}
