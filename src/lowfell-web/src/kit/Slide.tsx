import { Slider } from "radix-ui";
import { useId, useRef, useState, type ReactNode } from "react";

/** A slider with its name and its value in words; follows every step of the thumb. */
export function Slide(props: {
  label: string;
  says: ReactNode;
  value: number;
  min: number;
  max: number;
  step: number;
  valueText?: string;
  hideLabel?: boolean;
  onChange: (value: number) => void;
}) {
  const id = useId();
  // The thumb is where the hand is; what follows it may come a frame or two later.
  const [held, setHeld] = useState<number | null>(null);
  const letGo = useRef(0);
  if (held !== null && held === props.value) setHeld(null);
  const shown = held ?? props.value;
  return (
    <div>
      <div className={props.hideLabel ? "sr-only" : "flex items-baseline justify-between gap-2 text-xs"}>
        <span id={id} className="text-soft">
          {props.label}
        </span>
        <span>{props.says}</span>
      </div>
      <Slider.Root
        className="relative flex h-6 w-full touch-none items-center"
        min={props.min}
        max={props.max}
        step={props.step}
        value={[Math.min(props.max, Math.max(props.min, shown))]}
        onValueChange={([v]) => {
          if (v === undefined) return;
          setHeld(v);
          props.onChange(v);
          window.clearTimeout(letGo.current);
          letGo.current = window.setTimeout(() => setHeld(null), 600);
        }}
      >
        <Slider.Track className="relative h-0.5 grow bg-line">
          <Slider.Range className="absolute h-full bg-tide" />
        </Slider.Track>
        <Slider.Thumb
          aria-labelledby={id}
          aria-valuetext={props.valueText}
          className="block size-4 rounded-full bg-tide"
        />
      </Slider.Root>
    </div>
  );
}
