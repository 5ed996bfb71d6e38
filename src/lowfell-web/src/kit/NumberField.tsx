import { useId, useState } from "react";
import { readFigure, sayFigure, type Unit } from "./form/figures";
import { box, Frame } from "./Frame";

/**
 * A figure that takes effect on Enter or when left. It is read with its unit; what cannot be read stays as it was typed, with what is
 * wrong below it, until it is put right or Escape takes it back.
 */
export function NumberField(props: {
  label: string;
  hideLabel?: boolean;
  value: number;
  unit: Unit;
  least?: number;
  most?: number;
  /** A fault that came from elsewhere. */
  fault?: string;
  /** Without its unit, where a column says it. */
  bare?: boolean;
  className?: string;
  onSet: (value: number) => void;
}) {
  const { value, unit, least, most } = props;
  const id = useId();
  const said = props.bare ? sayFigure(value, "") : sayFigure(value, unit);
  const [text, setText] = useState(said);
  const [from, setFrom] = useState(said);
  const [own, setOwn] = useState("");
  if (from !== said) {
    setFrom(said);
    setText(said);
    setOwn("");
  }
  const settle = () => {
    if (text === said) return setOwn("");
    const read = readFigure(text, unit);
    if (!read) return setText(said);
    if ("fault" in read) return setOwn(read.fault);
    if (least !== undefined && read.value < least) return setOwn(`At least ${sayFigure(least, unit)}.`);
    if (most !== undefined && read.value > most) return setOwn(`At most ${sayFigure(most, unit)}.`);
    setOwn("");
    if (read.value === value) setText(said);
    else props.onSet(read.value);
  };
  const fault = own || props.fault;
  return (
    <Frame id={id} label={props.label} hideLabel={props.hideLabel} fault={fault || undefined}>
      <input
        id={id}
        inputMode="decimal"
        autoComplete="off"
        value={text}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={settle}
        onKeyDown={(e) => {
          if (e.key === "Enter") {
            e.preventDefault();
            settle();
          }
          if (e.key === "Escape" && (text !== said || own)) {
            e.stopPropagation();
            setText(said);
            setOwn("");
          }
        }}
        className={`${box} ${fault ? "border-signal" : "border-line"} ${props.className ?? ""}`}
      />
    </Frame>
  );
}
