import type { FieldPath, FieldValues } from "react-hook-form";
import { Chosen, Typed, type FormControl } from "../../kit/form/fields";
import { substrates } from "./design";

/** Name, number and substance of a design; `at` is where the design is in its form. */
export function DesignFields<In extends FieldValues>({
  control,
  at,
}: {
  control: FormControl<In>;
  at: string;
}) {
  const field = (name: string) => `${at}${name}` as FieldPath<In>;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_90px] gap-3 sm:grid-cols-[minmax(0,1fr)_90px_minmax(0,1fr)]">
      <Typed control={control} name={field("name")} label="Name of the design" />
      <Typed control={control} name={field("pieces")} label="How many" inputMode="numeric" />
      <Chosen control={control} name={field("substrate")} label="Made of" options={substrates} />
    </div>
  );
}
