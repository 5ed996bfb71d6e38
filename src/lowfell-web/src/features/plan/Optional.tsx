import { useState } from "react";
import { readFigure, sayFigure, type Unit } from "../../kit/form/figures";
import { TextField } from "../../kit/Field";

/** A figure that may be left out; it takes effect on Enter or when left. */
export function Optional(props: {
  label: string;
  unit: Unit;
  value: number | null;
  most: number;
  placeholder: string;
  fault?: string;
  onSet: (value: number | null) => void;
}) {
  const { unit, most } = props;
  const [text, setText] = useState(() => sayFigure(props.value, unit));
  const read = readFigure(text, unit);
  const wrong =
    read && "fault" in read
      ? read.fault
      : read && (read.value < 0 || read.value > most)
        ? `From 0 to ${sayFigure(most, unit)}, or empty.`
        : undefined;
  const settle = () => {
    if (!wrong) props.onSet(read && "value" in read ? read.value : null);
  };
  return (
    <TextField
      label={props.label}
      inputMode="decimal"
      placeholder={props.placeholder}
      value={text}
      fault={wrong ?? props.fault}
      onChange={(e) => setText(e.target.value)}
      onBlur={settle}
      onKeyDown={(e) => e.key === "Enter" && settle()}
    />
  );
}
