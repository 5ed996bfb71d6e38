import { write } from "../../api/writes";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import { useSay } from "../../kit/Toast";
import { nextLabel, short, typed, vessels, type Look } from "./pots";
import { look as ask, useRefresh } from "./queries";
import { differs } from "../../shared/words";
import { Alert } from "../../kit/Alert";

/** What was really measured becomes a pot, and leaves the shelf. */
export function MakePot(props: {
  setId: string;
  look: Look;
  /** The recipe of the plan that it can be laid for, whether it is that recipe, and whether it was mixed to stand in for it. */
  standsFor: string;
  same: boolean;
  standsIn: boolean;
  name: string;
  taken: string[];
  onClose: () => void;
  onMade: (id: string) => void;
}) {
  const { setId, look } = props;
  const say = useSay();
  const refresh = useRefresh();
  // Ids are made once, so that a second press sends the same pot again and not another.
  const [ids] = useState(() => ({
    id: crypto.randomUUID() as string,
    eventId: crypto.randomUUID() as string,
  }));
  const [label, setLabel] = useState(() => nextLabel(props.name, props.taken));
  const [vessel, setVessel] = useState<Schema["Vessel"]>("jar");
  const [unit, setUnit] = useState<"drops" | "ml">(look.totalMl <= 12 ? "drops" : "ml");
  const [drops, setDrops] = useState(() => look.lines.map((l) => String(l.wholeUnits)));
  const [mls, setMls] = useState(() => look.lines.map((l) => short(l.ml)));
  const [standsIn, setStandsIn] = useState(props.standsIn);
  const [had, setHad] = useState(false);
  const [fault, setFault] = useState<Refused | null>(null);
  const values = unit === "drops" ? drops : mls;
  const amounts = look.lines.map((l, i) => {
    const n = typed(values[i]!);
    return { line: l, n, ml: n === null ? null : unit === "drops" ? n * l.unitMl : n };
  });
  const total = amounts.reduce((sum, a) => sum + (a.ml ?? 0), 0);
  const whole = amounts.every((a) => a.ml !== null && a.ml > 0);
  const body: Schema["JarIn"] = {
    parts: amounts.map((a) => ({
      materialId: a.line.materialId,
      parts: Math.round((a.ml ?? 0) * 10_000) / 10_000,
    })),
    totalMl: Math.max(0.1, Math.min(5000, total)),
    against: look.lines.map((l) => ({ materialId: l.materialId, parts: Number(l.parts) })),
  };
  const measured = useQuery({
    queryKey: ["pots", setId, "jar", body],
    queryFn: ({ signal }) => ask(setId, body, signal),
    placeholderData: keepPreviousData,
    enabled: whole,
  });
  const make = async () => {
    try {
      const pot = await write((headers) =>
        api.POST("/api/pots/{setId}", {
          headers,
          params: { path: { setId } },
          body: {
            ...ids,
            label,
            vessel,
            recipeKey: props.same || standsIn ? props.standsFor : "",
            bottleHadMore: had,
            amounts: amounts.map((a) => ({
              materialId: a.line.materialId,
              ml: unit === "ml" ? (a.n ?? 0) : null,
              drops: unit === "drops" ? Math.round(a.n ?? 0) : null,
            })),
          },
        }),
      );
      await refresh();
      say(`${pot.label} stands on the bench: ${short(pot.ml)} ml.`);
      props.onMade(pot.id);
    } catch (error) {
      if (error instanceof Refused) setFault(error);
    }
  };
  const faultOf = (field: string) => fault?.refusal.errors.find((e) => e.field === field)?.message;
  const general =
    fault && fault.refusal.errors.every((e) => !["label", "vessel"].includes(e.field)) ? fault : null;
  return (
    <Dialog
      open
      onClose={props.onClose}
      title="Make a pot"
      says="Type what really went in: that is what pieces will be matched by."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <div className="grid grid-cols-1 sm:grid-cols-[1fr_120px_90px] gap-2">
          <TextField
            label="Label"
            value={label}
            maxLength={80}
            fault={faultOf("label") ?? faultOf("name")}
            onChange={(e) => setLabel(e.target.value)}
          />
          <Choice label="Kept in" value={vessel} options={vessels} onChange={setVessel} />
          <Choice label="Measured in" value={unit} options={["drops", "ml"] as const} onChange={setUnit} />
        </div>
        <table className="mt-3 w-full text-sm">
          <caption className="sr-only">What went in</caption>
          <tbody>
            {amounts.map((a, i) => (
              <tr key={a.line.materialId} className="border-t border-line">
                <th scope="row" className="py-1 text-left font-normal">
                  {a.line.name}
                  <span className="block text-xs text-soft">
                    recipe:{" "}
                    {unit === "drops"
                      ? `${short(a.line.units)} ${a.line.unitWord}`
                      : `${short(a.line.ml)} ml`}
                  </span>
                </th>
                <td className="w-24 py-1">
                  <TextField
                    label={`${unit === "drops" ? "Drops" : "ml"} of ${a.line.name}`}
                    hideLabel
                    inputMode="decimal"
                    value={values[i]}
                    onChange={(e) => {
                      const next = values.map((v, k) => (k === i ? e.target.value : v));
                      if (unit === "drops") setDrops(next);
                      else setMls(next);
                    }}
                  />
                </td>
                <td className="w-20 py-1 text-right text-xs text-soft">
                  {a.ml === null ? "" : `${short(a.ml)} ml`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-2 text-xs" data-measured>
          {whole ? (
            <>
              In all <b>{short(total)} ml</b>
              {measured.data &&
                `, ${measured.data.dilution}, off the recipe on a card: ${differs(measured.data.difference ?? 0)}.`}
            </>
          ) : (
            "Give a number above 0 for each, or take a component out of the jar first."
          )}
        </p>
        {props.standsFor && !props.same && (
          <label className="mt-2 flex min-h-6 items-center gap-2 text-xs">
            <input type="checkbox" checked={standsIn} onChange={(e) => setStandsIn(e.target.checked)} />
            It stands in for the mix of the plan, and goes where that goes
          </label>
        )}
        {general && <Alert className="mt-2">{general.refusal.errors[0]?.message ?? general.message}</Alert>}
        {(general?.refusal.code === "not-enough" || had) && (
          <label className="mt-2 flex min-h-6 items-center gap-2 text-xs">
            <input type="checkbox" checked={had} onChange={(e) => setHad(e.target.checked)} />
            The bottle held more than the books say: correct the books, then mix
          </label>
        )}
        <div className="mt-4 flex gap-2">
          <Button type="submit" tone="go" disabled={!whole}>
            It is mixed
          </Button>
          <Button onClick={props.onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
