import { useState, type RefCallback } from "react";
import { Button } from "./Button";
import { TextField } from "./Field";
import { Later } from "./Later";

type Dropper = { open: () => Promise<{ sRGBHex: string }> };
const dropper = (window as { EyeDropper?: new () => Dropper }).EyeDropper;
const photoDialog = () => import("./PhotoDialog").then((m) => m.default);

const whole = /^#[0-9a-f]{6}$/i;

/** A colour typed as hex, chosen from a palette, picked off the screen, or read from a photo with a grey card in it. */
export function ColourField(props: {
  label: string;
  value: string;
  fault?: string;
  placeholder?: string;
  onChange: (colour: string) => void;
  onBlur?: () => void;
  takesFocus?: RefCallback<HTMLInputElement>;
}) {
  const { takesFocus } = props;
  const [photo, setPhoto] = useState(false);
  const good = whole.test(props.value);
  return (
    <div>
      <div className="flex items-end gap-1">
        <div className="min-w-0 flex-1">
          <TextField
            label={props.label}
            value={props.value}
            placeholder={props.placeholder ?? "#rrggbb"}
            spellCheck={false}
            maxLength={7}
            fault={props.fault}
            ref={takesFocus}
            onBlur={props.onBlur}
            onChange={(e) => props.onChange(e.target.value)}
          />
        </div>
        <input
          type="color"
          aria-label={`${props.label}, from a palette`}
          data-tip="From a palette"
          value={good ? props.value.toLowerCase() : "#808080"}
          onChange={(e) => props.onChange(e.target.value)}
          className="h-[30px] w-8 cursor-pointer rounded-[3px] border border-line bg-card p-0.5"
        />
        {dropper && (
          <Button
            aria-label={`${props.label}, off the screen`}
            data-tip="Pick it off the screen"
            className="h-[30px] !px-1.5"
            onClick={() => {
              void new dropper()
                .open()
                .then((picked) => props.onChange(picked.sRGBHex))
                .catch(() => {});
            }}
          >
            Screen
          </Button>
        )}
        <Button
          aria-label={`${props.label}, from a photo`}
          data-tip="From a photo with a grey card in it"
          className="h-[30px] !px-1.5"
          aria-haspopup="dialog"
          onClick={() => setPhoto(true)}
        >
          Photo
        </Button>
      </div>
      {photo && (
        <Later
          load={photoDialog}
          wanted
          with={{
            onClose: () => setPhoto(false),
            onPick: (colour: string) => {
              setPhoto(false);
              props.onChange(colour);
            },
          }}
        />
      )}
    </div>
  );
}
