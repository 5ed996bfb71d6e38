import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect, useRef, useState } from "react";
import { useForm as useHookForm, type DefaultValues, type FieldValues, type Path } from "react-hook-form";
import { Refused } from "../../api/client";
import type { z } from "./checks";
import { drafts, overlay } from "./drafts";
import { same } from "./same";

/** Paths as the server writes them, `zones[0].areaCm2`, as a form does, `zones.0.areaCm2`. */
export const pathOf = (field: string) => field.replace(/\[(\d+)\]/g, ".$1");

/**
 * A form: what may stand in it, what it begins with, and what to do with it once everything is right. It is checked before it is sent; a
 * fault stands beside its field and has the focus. What is typed is kept under `draft` until it is stored or thrown away.
 */
export function useForm<In extends FieldValues, Out>(options: {
  draft?: string;
  /** The version that is edited; a draft keeps the one it was typed against. */
  version?: number;
  schema: z.ZodType<Out, In>;
  begin: In;
  send: (values: Out, from: number | null) => Promise<void>;
  /** What a field of the server is called here; as it is where left out. */
  fieldOf?: (field: string) => string;
}) {
  const { draft, begin } = options;
  const [before] = useState(() => (draft ? drafts.whole(draft) : null));
  const kept = before?.values ?? null;
  // Which stored state the form began from.
  const from = useRef(before?.from ?? options.version);
  const form = useHookForm<In, unknown, Out>({
    resolver: zodResolver(options.schema),
    // What was typed before is what it begins with; what `begin` says is what "start over" goes back to.
    defaultValues: (kept === null ? begin : overlay(begin, kept)) as DefaultValues<In>,
    mode: "onTouched",
    shouldFocusError: true,
  });
  const [restored, setRestored] = useState(kept !== null);
  const [refused, setRefused] = useState<Refused | null>(null);

  const [base, setBase] = useState(begin);
  useEffect(() => {
    if (!draft) return;
    const untouched = JSON.stringify(base);
    return form.subscribe({
      formState: { values: true },
      callback: ({ values }) => {
        if (JSON.stringify(values) === untouched) drafts.drop(draft);
        else drafts.keep(draft, values, from.current);
      },
    });
  }, [form, draft, base]);

  const running = useRef(false);
  const forget = () => draft && drafts.drop(draft);
  const send = async (values: Out) => {
    setRefused(null);
    try {
      const sent = structuredClone(form.getValues());
      await options.send(values, from.current ?? null);
      setBase(sent);
      // What was typed while it was on its way is kept as a draft.
      if (same(form.getValues(), sent)) forget();
      setRestored(false);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      setRefused(error);
      let focused = false;
      for (const fault of error.refusal.errors) {
        const path = (options.fieldOf ?? pathOf)(fault.field) as Path<In>;
        if (has(form.getValues(), path)) {
          form.setError(path, { type: "server", message: fault.message }, { shouldFocus: !focused });
          focused = true;
        }
      }
    }
  };
  return {
    form,
    submit: async (e?: { preventDefault: () => void; stopPropagation: () => void }) => {
      e?.preventDefault();
      e?.stopPropagation();
      // Pressed twice, it is sent once.
      if (running.current) return;
      running.current = true;
      await form
        .handleSubmit(send)()
        .finally(() => (running.current = false));
    },
    busy: form.formState.isSubmitting,
    refused,
    setRefused,
    /** Says which version is stored against from now on: the newest one that has been seen. */
    against: (version: number) => {
      from.current = version;
    },
    /** Whether what stands here was typed some other time. */
    restored,
    /** Throws what was typed away. */
    startOver: (to: In = begin, version = options.version) => {
      from.current = version;
      form.reset(to as DefaultValues<In>);
      setBase(to);
      setRefused(null);
      setRestored(false);
      forget();
    },
  };
}

const has = (values: unknown, path: string) => {
  let at = values;
  for (const step of path.split(".")) {
    if (typeof at !== "object" || at === null || !(step in at)) return false;
    at = (at as Record<string, unknown>)[step];
  }
  return true;
};
