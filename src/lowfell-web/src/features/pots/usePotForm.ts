import type { FieldValues } from "react-hook-form";
import { Refused } from "../../api/client";
import type { z } from "../../kit/form/checks";
import { useForm } from "../../kit/form/useForm";
import { useSay } from "../../kit/Toast";
import type { Pot } from "./pots";
import { useRefresh } from "./queries";

/**
 * One step of a pot as a form: checked, sent with an id of its own, said. When somebody else was at the pot, its new state is read, and
 * the next press works from that.
 */
export function usePotForm<In extends FieldValues, Out>(options: {
  schema: z.ZodType<Out, In>;
  begin: In;
  fieldOf?: (field: string) => string;
  call: (values: Out, id: string) => Promise<Pot>;
  says: (pot: Pot, values: Out) => string;
  onDone: (pot: Pot) => void;
}) {
  const say = useSay();
  const refresh = useRefresh();
  const { form, submit, busy, refused } = useForm({
    schema: options.schema,
    begin: options.begin,
    fieldOf: options.fieldOf,
    send: async (values) => {
      try {
        const pot = await options.call(values, crypto.randomUUID());
        await refresh();
        say(options.says(pot, values));
        options.onDone(pot);
      } catch (error) {
        if (error instanceof Refused && error.refusal.code === "changed-elsewhere") await refresh();
        throw error;
      }
    },
  });
  return { control: form.control, form, submit, busy, refused };
}
