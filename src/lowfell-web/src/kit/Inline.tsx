import { useId, useState } from "react";
import { box } from "./Frame";

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
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState("");
  const store = async () => {
    if (typed === null) return;
    const value = typed.trim();
    if (value === props.value) setTyped(null);
    else if (!value && !props.empty) setFault(`${props.label} is missing.`);
    else if (value.length > props.most) setFault(`At most ${props.most} characters.`);
    // Refused, it stands as it was typed, to be mended.
    else if (await props.onStore(value)) setTyped(null);
  };
  return (
    <span className="block min-w-0">
      <input
        aria-label={props.label}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? id : undefined}
        autoComplete="off"
        placeholder={props.placeholder}
        value={typed ?? props.value}
        onChange={(e) => {
          setTyped(e.target.value);
          setFault("");
        }}
        onBlur={() => void store()}
        onKeyDown={(e) => {
          if (e.key === "Enter") void store();
          else if (e.key === "Escape" && typed !== null) {
            setTyped(null);
            setFault("");
          }
        }}
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
