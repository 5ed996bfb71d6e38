import type { InputHTMLAttributes, ReactNode } from "react";
import { useController, type Control, type FieldPath, type FieldValues } from "react-hook-form";
import { Button } from "../Button";
import { ColourField } from "../ColourField";
import type { Option } from "../Combobox";
import { Choice, TextField } from "../Field";

/** A form's control, whatever its values are checked into. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type FormControl<In extends FieldValues> = Control<In, any, any>;

type Of<In extends FieldValues> = {
  control: FormControl<In>;
  name: FieldPath<In>;
  label: string;
  hint?: ReactNode;
  hideLabel?: boolean;
};

/** Words, or a figure with its unit. */
export function Typed<In extends FieldValues>({
  control,
  name,
  ...rest
}: Of<In> & Omit<InputHTMLAttributes<HTMLInputElement>, "name" | "value" | "defaultValue">) {
  const { field, fieldState } = useController({ control, name });
  return <TextField {...rest} {...field} fault={fieldState.error?.message} />;
}

/** One of several. */
export function Chosen<In extends FieldValues, T extends string>({
  control,
  name,
  onChosen,
  ...rest
}: Of<In> & {
  options: readonly (T | Option<T>)[];
  placeholder?: string;
  disabled?: boolean;
  onChosen?: (value: T) => void;
}) {
  const { field, fieldState } = useController({ control, name });
  return (
    <Choice<T>
      {...rest}
      value={field.value}
      fault={fieldState.error?.message}
      takesFocus={field.ref}
      onChange={(value) => {
        field.onChange(value);
        onChosen?.(value);
      }}
    />
  );
}

/** Yes or no, in a sentence. */
export function Ticked<In extends FieldValues>({ control, name, label, hint }: Omit<Of<In>, "hideLabel">) {
  const {
    field: { ref, value, onBlur, onChange },
  } = useController({ control, name });
  return (
    <label className="flex min-h-6 items-start gap-1.5 text-xs">
      <input
        type="checkbox"
        className="mt-0.5"
        ref={ref}
        checked={value}
        onBlur={onBlur}
        onChange={(e) => onChange(e.target.checked)}
      />
      <span>
        {label}
        {hint && <span className="block text-soft">{hint}</span>}
      </span>
    </label>
  );
}

/** Some of a few. */
export function Several<In extends FieldValues>({
  control,
  name,
  label,
  options,
}: Omit<Of<In>, "hideLabel" | "hint"> & { options: readonly string[] }) {
  const {
    field: { ref, value, onChange },
  } = useController({ control, name });
  const chosen: string[] = value;
  return (
    <fieldset>
      <legend className="text-xs text-soft">{label}</legend>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {options.map((o, i) => (
          <label key={o} className="flex min-h-6 items-center gap-1.5 text-xs">
            <input
              type="checkbox"
              ref={i === 0 ? ref : undefined}
              checked={chosen.includes(o)}
              onChange={(e) =>
                onChange(options.filter((x) => (x === o ? e.target.checked : chosen.includes(x))))
              }
            />
            {o}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** A colour: typed, picked or read from a photo. */
export function Coloured<In extends FieldValues>({
  control,
  name,
  label,
  placeholder,
  fault,
}: Of<In> & { placeholder?: string; fault?: string }) {
  const { field, fieldState } = useController({ control, name });
  return (
    <ColourField
      label={label}
      placeholder={placeholder}
      value={field.value}
      fault={fieldState.error?.message ?? fault}
      takesFocus={field.ref}
      onBlur={field.onBlur}
      onChange={field.onChange}
    />
  );
}

/** Says that what stands in a form was typed some other time, with the way to begin afresh. */
export function Restored({ shown, onOver }: { shown: boolean; onOver: () => void }) {
  if (!shown) return null;
  return (
    <p role="status" className="mt-2 flex items-center gap-2 text-xs text-soft">
      What you typed before stands here again.
      <Button onClick={onOver}>Start over</Button>
    </p>
  );
}
