import { useMemo } from "react";
import { Combobox, type Option } from "../../kit/Combobox";
import { Swatch } from "../../kit/Swatch";
import { lately, used } from "./lately";
import { fitsFor, order } from "./suits";
import type { Material, TechniqueInfo } from "./types";

/** A material for a layer: those that suit the technique first, of these the ones used lately; each says why it does or does not. */
export function MaterialChoice(props: {
  label: string;
  hideLabel?: boolean;
  value: string;
  materials: Material[];
  /** The one chosen, where it is not on the shelf. */
  away?: Material;
  info?: TechniqueInfo;
  fault?: string;
  onChange: (id: string) => void;
}) {
  const { materials, info, away } = props;
  const options = useMemo(() => {
    const on = order(materials, info, lately()).map((m): Option<string> => ({
      value: m.id,
      text: m.name,
      group: info ? (fitsFor(m, info) ? `Suits ${info.technique}` : "Everything else") : undefined,
      row: <MaterialRow material={m} info={info} />,
    }));
    return away ? [...on, { value: away.id, text: away.name, group: "Off the shelf" }] : on;
  }, [materials, info, away]);
  return (
    <Combobox
      label={props.label}
      hideLabel={props.hideLabel}
      value={props.value}
      options={options}
      fault={props.fault}
      placeholder="Type a name…"
      onChange={(id) => {
        used(id);
        props.onChange(id);
      }}
    />
  );
}

function MaterialRow({ material: m, info }: { material: Material; info?: TechniqueInfo }) {
  return (
    <span className="flex items-center gap-2">
      <Swatch colour={m.colour ?? m.overWhite ?? "transparent"} name="" className="size-5" />
      <span className="min-w-0 flex-1">
        <span className="block truncate">{m.name}</span>
        <span className="block truncate text-xs opacity-80">
          {m.sheen} {m.kind}
          {info &&
            !fitsFor(m, info) &&
            `; ${info.technique} wants ${info.suits.join(" or ") || "no material"}`}
        </span>
      </span>
      <span className="shrink-0 text-xs tabular-nums opacity-80">
        {m.stockMl > 0 ? `${Math.round(m.stockMl * 10) / 10} ml` : "none left"}
      </span>
    </span>
  );
}
