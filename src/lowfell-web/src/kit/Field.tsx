import { useId, type InputHTMLAttributes, type Ref, type RefCallback } from "react";
import { Combobox, type Option } from "./Combobox";
import { box, Frame, type Shared } from "./Frame";
import { Select } from "./Select";

export function TextField({
  label,
  fault,
  hint,
  hideLabel,
  beside,
  className = "",
  ...rest
}: Shared & InputHTMLAttributes<HTMLInputElement> & { ref?: Ref<HTMLInputElement> }) {
  const id = useId();
  return (
    <Frame id={id} label={label} fault={fault} hint={hint} hideLabel={hideLabel} beside={beside}>
      <input
        id={id}
        autoComplete="off"
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : hint ? `${id}-hint` : undefined}
        className={`${box} ${fault ? "border-signal" : "border-line"} ${className}`}
        {...rest}
      />
    </Frame>
  );
}

/** As many as can be taken in at a glance. */
const A_FEW = 7;

/** A choice: of a few from a list that shows them all, of more by typing. */
export function Choice<T extends string>(
  props: Shared & {
    value: T;
    options: readonly (T | Option<T>)[];
    onChange: (value: T) => void;
    disabled?: boolean;
    placeholder?: string;
    /** Given what can take the focus. */
    takesFocus?: RefCallback<HTMLElement>;
  },
) {
  const options = props.options.map((o) => (typeof o === "string" ? { value: o, text: o || "—" } : o));
  const Kind = options.length > A_FEW ? Combobox : Select;
  return <Kind {...props} options={options} />;
}
