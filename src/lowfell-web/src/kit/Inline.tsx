import { useId } from "react";
import { box } from "./Frame";
import { useInPlace } from "./useInPlace";

/** Words that are changed where they stand: stored with Enter or on leaving, taken back with Escape. */
export function Inline(props: {
  label: string;
  value: string;
  most: number;
  /** May be left empty. */
  empty?: boolean;
  placeholder?: string;
  className?: string;
  onStore: (value: string) => Promise<unknown>;
}) {
  const id = useId();
  const { field, fault } = useInPlace({
    value: props.value,
    same: (typed) => typed.trim() === props.value,
    store: async (typed) => {
      const value = typed.trim();
      if (!value && !props.empty) return `${props.label} is missing.`;
      if (value.length > props.most) return `At most ${props.most} characters.`;
      return (await props.onStore(value)) ? null : "";
    },
  });
  return (
    <span className="block min-w-0">
      <input
        aria-label={props.label}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? id : undefined}
        autoComplete="off"
        placeholder={props.placeholder}
        {...field}
        className={`${box} ${fault ? "border-signal" : "border-line"} ${props.className ?? ""}`}
      />
      {fault && (
        <span id={id} className="block text-xs font-medium text-signal">
          <span aria-hidden="true">▲ </span>
          {fault}
        </span>
      )}
    </span>
  );
}
