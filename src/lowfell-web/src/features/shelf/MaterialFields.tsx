import { useEffect, useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import type { Schema } from "../../api/client";
import { Chosen, Coloured, Several, Typed } from "../../kit/form/fields";
import { sayFigure } from "../../kit/form/figures";
import { carriers, heats, kinds, lustres, sheens, thinnerFamilies, type Entered, type Form } from "./form";

type Usual = Schema["UsualFigures"];
type Props = {
  form: UseFormReturn<Form, unknown, Entered>;
  usual: Usual | null;
  currency: string;
  /** What is wrong with a card while it is typed. */
  cardFault: (field: "overBlack" | "overWhite") => string | undefined;
};

/** What the usual paint needs: name, colour, kind, amount. The rest is taken by kind, and stands behind it. */
export function MaterialFields(props: Props) {
  const { form, usual } = props;
  const { control } = form;
  const [more, setMore] = useState(false);
  const { errors, submitCount } = form.formState;
  const wrong = long.find((f) => f in errors);
  const before = Object.keys(errors).some((f) => !long.includes(f as keyof Form));

  // A fault out of sight is brought into sight, has the focus, and stays in sight while it is put right.
  if (submitCount > 0 && wrong && !more) setMore(true);
  useEffect(() => {
    if (submitCount === 0 || !wrong || before) return;
    const frame = requestAnimationFrame(() => form.setFocus(wrong));
    return () => cancelAnimationFrame(frame);
  }, [submitCount, wrong, before, form]);

  return (
    <>
      <div className="col-span-2">
        <Typed control={control} name="name" label="Name" />
      </div>
      <div className="col-span-2">
        <Coloured control={control} name="colour" label="Colour" placeholder="#6b4f2a" />
      </div>
      <Chosen control={control} name="kind" label="Kind" options={kinds} />
      <Typed control={control} name="stockMl" label="In stock" inputMode="decimal" placeholder="17 ml" />
      <div className="col-span-2">
        <button
          type="button"
          aria-expanded={more}
          aria-controls="material-more"
          className="min-h-6 text-xs font-semibold underline decoration-dotted underline-offset-2"
          onClick={() => setMore(!more)}
        >
          {more ? "Only the usual" : "Everything else: card, maker, drying, thinning, price"}
        </button>
        {!more && usual && (
          <p className="text-xs text-soft" data-usual>
            Where nothing is given, what is usual for its kind is taken (a guess): {guesses(usual)}.
          </p>
        )}
      </div>
      <div id="material-more" hidden={!more} className="col-span-2">
        {more && <More {...props} />}
      </div>
    </>
  );
}

const long: (keyof Form)[] = [
  "maker",
  "code",
  "carrier",
  "overBlack",
  "overWhite",
  "coatsToHide",
  "sheen",
  "lustre",
  "hotAir",
  "mostThinnerShare",
  "solidsFraction",
  "packMl",
  "dropMl",
  "densityGPerMl",
  "touchMinutes",
  "recoatMinutes",
  "cureMinutes",
  "price",
  "hazards",
  "notes",
];

const guesses = (u: Usual) =>
  [
    `touch dry after ${sayFigure(u.touchMinutes, "min")}`,
    `recoat after ${sayFigure(u.recoatMinutes, "min")}`,
    `cured after ${sayFigure(u.cureMinutes, "min")}`,
    `${Math.round(u.solidsFraction * 100)} % stays when dry`,
  ].join(", ");

function More({ form: { control }, usual, currency, cardFault }: Props) {
  const guess = (value: number | undefined, unit: "min" | "ml" | "g/ml") =>
    value === undefined ? "usual" : `${sayFigure(value, unit)}, a guess`;
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2">
      <fieldset className="col-span-2 grid gap-2 border-t border-line pt-1.5">
        <legend className="pr-2 text-xs font-semibold">How well it hides, best way first</legend>
        <p className="text-xs text-soft">
          Paint one ordinary coat over a card half black, half white, let it dry, and give both colours. Else
          give the coats it takes to hide black, if you know them.
        </p>
        <Coloured
          control={control}
          name="overBlack"
          label="Card: one coat over black"
          fault={cardFault("overBlack")}
        />
        <Coloured
          control={control}
          name="overWhite"
          label="Card: one coat over white"
          fault={cardFault("overWhite")}
        />
        <Typed
          control={control}
          name="coatsToHide"
          label="Coats to hide black"
          inputMode="decimal"
          placeholder="unknown"
        />
      </fieldset>
      <Chosen control={control} name="carrier" label="Carrier" options={carriers} />
      <Chosen control={control} name="sheen" label="Sheen when dry" options={sheens} />
      <Typed control={control} name="maker" label="Maker" />
      <Typed control={control} name="code" label="Code" />
      <Chosen control={control} name="lustre" label="Metal, glass or glow" options={lustres} />
      <Chosen control={control} name="hotAir" label="Under hot air" options={heats} />
      <Typed
        control={control}
        name="mostThinnerShare"
        label="Most thinner in the mix"
        inputMode="decimal"
        placeholder="usual"
      />
      <Typed
        control={control}
        name="solidsFraction"
        label="Stays when dry"
        inputMode="decimal"
        placeholder={usual ? `${Math.round(usual.solidsFraction * 100)} %, a guess` : "usual"}
      />
      <Typed control={control} name="packMl" label="Pack" inputMode="decimal" placeholder="17 ml" />
      <Typed
        control={control}
        name="dropMl"
        label="One drop"
        inputMode="decimal"
        placeholder={guess(usual?.dropMl, "ml")}
      />
      <Typed
        control={control}
        name="densityGPerMl"
        label="Weighs, g/ml"
        inputMode="decimal"
        placeholder={guess(usual?.densityGPerMl, "g/ml")}
      />
      <Typed
        control={control}
        name="touchMinutes"
        label="Touch dry after"
        placeholder={guess(usual?.touchMinutes, "min")}
      />
      <Typed
        control={control}
        name="recoatMinutes"
        label="Recoat after"
        placeholder={guess(usual?.recoatMinutes, "min")}
      />
      <Typed
        control={control}
        name="cureMinutes"
        label="Cured after"
        placeholder={guess(usual?.cureMinutes, "min")}
      />
      <Typed
        control={control}
        name="price"
        label={currency ? `Price a pack, ${currency}` : "Price a pack"}
        inputMode="decimal"
        placeholder="not known"
      />
      <div className="col-span-2">
        <Several
          control={control}
          name="thinners"
          label="Thinned or cleaned with"
          options={thinnerFamilies}
        />
      </div>
      <div className="col-span-2">
        <Typed control={control} name="hazards" label="Hazards on the label" />
      </div>
      <div className="col-span-2">
        <Typed control={control} name="notes" label="Notes" />
      </div>
    </div>
  );
}
