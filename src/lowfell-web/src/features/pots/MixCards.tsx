import { Link } from "react-router";
import { Button } from "../../kit/Button";
import { Swatch } from "../../kit/Swatch";
import { differs, ml } from "../../shared/words";
import { short, type Mix, type Pot, type Reading } from "./pots";
import { Figure, Row, Table } from "../../kit/Table";

/** One card a mix, to be printed and cut out: the recipe, where it goes, and what was really mixed. */
export function MixCards({ reading }: { reading: Reading }) {
  const mixes = reading.mixes.filter((m) => m.needsMixing);
  return (
    <div className="h-full overflow-y-auto px-5 pt-2 pb-6 print:h-auto print:overflow-visible">
      <div className="no-print flex items-center gap-3">
        <p className="text-xs text-soft">
          Print them, cut them out, keep them by the pots. Colours on paper are only a reminder.
        </p>
        <Button className="ml-auto" onClick={() => window.print()}>
          Print the cards
        </Button>
      </div>
      {mixes.length === 0 && (
        <p className="mt-4 text-soft">
          No layer of this set is mixed or thinned.{" "}
          <Link className="underline" to={`/plan/${reading.setId}`}>
            Mix or thin one in its layers
          </Link>
          , or{" "}
          <Link className="underline" to={`/pots/${reading.setId}?free=`}>
            mix something freely
          </Link>
          .
        </p>
      )}
      <ul className="mt-2 grid gap-3 sm:grid-cols-2 xl:grid-cols-3 print:grid-cols-3 print:gap-1.5">
        {mixes.map((m) => (
          <MixCard key={m.recipeKey} mix={m} pots={reading.pots.filter((p) => p.recipeKey === m.recipeKey)} />
        ))}
      </ul>
    </div>
  );
}

function MixCard({ mix, pots }: { mix: Mix; pots: Pot[] }) {
  return (
    <li
      data-card={mix.name}
      className="flex break-inside-avoid flex-col border border-ink bg-card px-3 py-2 text-xs print:px-1.5 print:py-1 print:text-[9px] print:leading-tight"
    >
      <div className="flex gap-2">
        <Swatch colour={mix.colour} name={mix.name} className="h-9 w-9" />
        <div className="min-w-0">
          <h2 className="text-sm leading-tight font-semibold">{mix.name}</h2>
          <p className="text-soft">{mix.dilution}</p>
        </div>
      </div>
      <Table caption={`Parts of ${mix.name}`} className="mt-1.5">
        {mix.parts.map((p) => (
          <Row key={p.materialId} head={p.name} headClass="py-0.5!">
            <Figure className="w-14 py-0.5! font-semibold">
              {p.parts} {p.parts === "1" ? "part" : "parts"}
            </Figure>
            <Figure className="w-14 py-0.5! text-soft">{short(p.percent)} %</Figure>
          </Row>
        ))}
      </Table>
      <p className="mt-1.5">
        {mix.places
          .slice(0, 4)
          .map((p) => `${p.zone} (${p.technique})`)
          .join("; ")}
        {mix.places.length > 4 && ` and ${mix.places.length - 4} more`}.
      </p>
      <p className="text-soft">{mix.ml > 0 ? `${ml(mix.ml)} still to be laid.` : "All laid."}</p>
      {pots.map((p) => (
        <p key={p.id} className="border-t border-line pt-0.5">
          <b>{p.label}</b>, {new Date(p.madeAt).toLocaleDateString("en-GB")}: {short(p.madeMl)} ml
          {p.offRecipe !== null && p.offRecipe >= 0.5 && `, off: ${differs(p.offRecipe)}`}
          {p.note && `, ${p.note}`}
        </p>
      ))}
      <p className="mt-auto pt-2 text-soft">Mixed on ____________ drops ____________</p>
    </li>
  );
}
