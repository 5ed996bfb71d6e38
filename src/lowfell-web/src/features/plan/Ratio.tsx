import { write } from "../../api/writes";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Choice, TextField } from "../../kit/Field";
import { readRatio } from "../../shared/words";
import type { Layer } from "./stack";
import type { Material } from "./types";

const ASK_AFTER_MS = 250;

/**
 * A dilution typed any way, with what was read beside it in parts and share. What can mean two things is asked, and the answer
 * about a bare percentage is remembered for the house.
 */
export function Ratio(props: {
  layer: Layer;
  workshopId: string;
  materials: Material[];
  /** The dilution, and where several components were written too, the layer's mix with their parts. */
  onChange: (d: Layer["dilution"], paint: Layer["paint"]) => void;
}) {
  const { layer, workshopId, materials, onChange } = props;
  const queries = useQueryClient();
  const words = layer.dilution ? `${layer.dilution.paint}:${layer.dilution.thinner}` : "neat";
  const [text, setText] = useState(words);
  const [seen, setSeen] = useState(words);
  const [said, setSaid] = useState<Schema["DilutionOut"] | null>(null);
  const [fault, setFault] = useState("");
  const timer = useRef(0);
  if (words !== seen) {
    setSeen(words);
    setText(words);
    setSaid(null);
  }
  const thinners = materials.filter((m) => m.kind === "thinner");
  const main = materials.find((m) => m.id === layer.paint[0]?.materialId);
  const fitting = thinners.find((t) => t.thinners.some((f) => main?.thinners.includes(f))) ?? thinners[0];
  const plain = readRatio(text);

  const settle = (read: Read | "neat") => {
    const components = read !== "neat" && read.mix.length === layer.paint.length ? read.mix : null;
    const paint = components ? layer.paint.map((p, i) => ({ ...p, parts: components[i]! })) : layer.paint;
    if (read === "neat") {
      setSeen("neat");
      return onChange(null, paint);
    }
    const thinnerId = layer.dilution?.thinnerId ?? fitting?.id;
    if (!thinnerId) return;
    setSeen(`${read.paint}:${read.thinner}`);
    onChange({ thinnerId, paint: read.paint, thinner: read.thinner }, paint);
  };

  // What was just answered about a bare percentage holds for the next one, however quickly it is typed.
  const remembering = useRef<Promise<unknown>>(Promise.resolve());
  const ask = async (typed: string) => {
    try {
      await remembering.current;
      const answer = await take(
        api.POST("/api/workshops/{workshopId}/dilution", {
          params: { path: { workshopId } },
          body: { text: typed, percent: null },
        }),
      );
      if (now.current.text !== typed) return;
      setSaid(answer);
      if (!answer.ambiguous) now.current.settle(partsOf(answer.readings[0]!));
    } catch (error) {
      if (error instanceof Refused && now.current.text === typed) setFault(error.message);
    }
  };
  // An answer may come after the layer was changed elsewhere; it acts on what is there then.
  const now = useRef({ text, settle });
  useEffect(() => {
    now.current = { text, settle };
  });

  /** Plain parts are read at once; anything else is asked about when the fingers rest. */
  const type = (typed: string) => {
    setText(typed);
    setSaid(null);
    setFault("");
    window.clearTimeout(timer.current);
    const read = readRatio(typed);
    if (read !== null) settle(read === "neat" ? read : { ...read, mix: [] });
    else timer.current = window.setTimeout(() => void ask(typed), ASK_AFTER_MS);
  };

  const choose = (r: Schema["DilutionReadingOut"], index: number) => {
    settle(partsOf(r));
    setSaid(null);
    setText(`${r.parts[0]}:${r.parts[1]}`);
    // The two readings of a bare percentage come in this order.
    if (/^[^%]*\d\s*(%|per ?cent)[^%]*$/i.test(text))
      remembering.current = write((headers) =>
        api.PUT("/api/workshops/{workshopId}/house-rules/bare-percent", {
          headers,
          params: { path: { workshopId } },
          body: { meaning: index === 0 ? "of the mix" : "added" },
        }),
      ).then(
        () => queries.invalidateQueries({ queryKey: ["house"] }),
        // It is asked again next time.
        () => null,
      );
  };

  const only = said && !said.ambiguous ? said.readings[0] : undefined;
  const share = layer.dilution
    ? Math.round((100 * layer.dilution.paint) / (layer.dilution.paint + layer.dilution.thinner))
    : 100;
  return (
    <div>
      <TextField
        label="Paint : thinner"
        value={text}
        maxLength={200}
        onChange={(e) => type(e.target.value)}
        fault={fault || undefined}
        hint={
          said?.ambiguous
            ? said.question
            : only
              ? echo(only, layer.paint.length)
              : plain === null
                ? "…"
                : layer.dilution
                  ? `${share} % of the mix is paint`
                  : "not thinned"
        }
      />
      {said?.ambiguous && (
        <div className="mt-1 flex flex-wrap gap-1">
          {said.readings.map((r, i) => (
            <Button
              key={r.parts.join()}
              className="!whitespace-normal text-left"
              data-reading
              onClick={() => choose(r, i)}
            >
              {r.parts.join(" : ")}, {r.says}
            </Button>
          ))}
        </div>
      )}
      {layer.dilution && (
        <Choice
          label="Thinner"
          hideLabel
          value={layer.dilution.thinnerId}
          options={thinners.map((t) => ({ value: t.id, text: t.name }))}
          onChange={(thinnerId) => onChange({ ...layer.dilution!, thinnerId }, layer.paint)}
        />
      )}
    </div>
  );
}

/** What was read, in words; and why the components that were written are not those of the layer. */
function echo(read: Schema["DilutionReadingOut"], components: number) {
  const written = read.parts.length - 1;
  const stay =
    written > 1 && written !== components
      ? `; this layer mixes ${components === 1 ? "one component" : `${components} components`}, whose parts stay`
      : "";
  return `${read.says}: ${read.parts.join(" : ")}, ${Math.round((1 - read.shareOfMix.at(-1)!) * 100)} % paint${stay}`;
}

/** Paint to thinner, and the components that make up the paint where they were written. */
type Read = { paint: number; thinner: number; mix: number[] };

/** Stored parts go up to a thousand; the reader gives the smallest whole ones. */
const partsOf = (r: Schema["DilutionReadingOut"]): Read | "neat" => {
  const parts = r.parts.map(Number);
  const mix = parts.slice(0, -1);
  const thinner = parts.at(-1)!;
  if (thinner === 0) return "neat";
  return { paint: mix.reduce((sum, n) => sum + n, 0), thinner, mix: mix.length > 1 ? mix : [] };
};
