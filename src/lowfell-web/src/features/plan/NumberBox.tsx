import { useState } from "react";
import { TextField } from "../../kit/Field";
import { readFigure } from "../../kit/form/figures";

/** A number of the stack: whatever is typed takes effect as soon as it can be one. */
export function NumberBox(props: {
  label: string;
  value: number;
  min: number;
  max: number;
  whole?: boolean;
  wide?: boolean;
  fault?: string;
  onChange: (n: number) => void;
}) {
  const [text, setText] = useState(String(props.value));
  const [seen, setSeen] = useState(props.value);
  if (seen !== props.value) {
    setSeen(props.value);
    setText(String(props.value));
  }
  const valid = (typed: string) => {
    const read = readFigure(typed, "");
    const n = read && "value" in read ? read.value : null;
    return n !== null && n >= props.min && n <= props.max && (!props.whole || Number.isInteger(n)) ? n : null;
  };
  return (
    <div className={props.wide ? "" : "w-16 shrink-0"}>
      <TextField
        label={props.label}
        hideLabel={!props.wide}
        inputMode="decimal"
        value={text}
        fault={valid(text) !== null ? props.fault : `From ${props.min} to ${props.max}.`}
        onChange={(e) => {
          setText(e.target.value);
          const v = valid(e.target.value);
          if (v !== null) {
            setSeen(v);
            props.onChange(v);
          }
        }}
      />
    </div>
  );
}
