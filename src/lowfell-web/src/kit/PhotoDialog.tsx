import { useRef, useState, type KeyboardEvent } from "react";
import { api, Refused, take } from "../api/client";
import { Button } from "./Button";
import { Dialog } from "./Dialog";
import { TextField } from "./Field";
import { patchMean, type Pixels } from "./photo";
import { Alert } from "./Alert";

const LONGEST = 900;
const REACH = 6;
type Point = { x: number; y: number };

/** Reads a colour off a photo: first the grey card, then the sample. The photo never leaves this computer. */
export default function PhotoDialog(props: { onClose: () => void; onPick: (colour: string) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [pixels, setPixels] = useState<Pixels | null>(null);
  const [at, setAt] = useState<Point>({ x: 0, y: 0 });
  const [card, setCard] = useState<Point | null>(null);
  const [reflects, setReflects] = useState("18");
  const [colour, setColour] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);

  const open = async (file: File | undefined) => {
    if (!file || !canvas.current) return;
    try {
      const bitmap = await createImageBitmap(file);
      const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
      const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
      canvas.current.width = width;
      canvas.current.height = height;
      const paper = canvas.current.getContext("2d", { willReadFrequently: true })!;
      paper.drawImage(bitmap, 0, 0, width, height);
      setPixels(paper.getImageData(0, 0, width, height));
      setAt({ x: Math.round(width / 2), y: Math.round(height / 2) });
      setCard(null);
      setColour(null);
      setFault(null);
      canvas.current.focus();
    } catch {
      setFault("This file could not be read as a picture. Choose a JPEG or PNG.");
    }
  };

  const pick = async (point: Point) => {
    if (!pixels) return;
    setAt(point);
    if (!card) {
      setCard(point);
      return;
    }
    setFault(null);
    try {
      const answer = await take(
        api.POST("/api/shelf/photo", {
          body: {
            card: patchMean(pixels, card.x, card.y, REACH),
            sample: patchMean(pixels, point.x, point.y, REACH),
            cardReflectance: Number(reflects.replace(",", ".")) / 100,
          },
        }),
      );
      setColour(answer.colour);
    } catch (error) {
      if (error instanceof Refused) setFault(error.message);
    }
  };

  const onKey = (e: KeyboardEvent) => {
    const by = e.shiftKey ? 20 : 4;
    const step = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    }[e.key];
    if (step && pixels) {
      e.preventDefault();
      setAt({
        x: Math.min(pixels.width - 1, Math.max(0, at.x + step[0]!)),
        y: Math.min(pixels.height - 1, Math.max(0, at.y + step[1]!)),
      });
    } else if (e.key === "Enter") {
      e.preventDefault();
      void pick(at);
    }
  };

  const mark = (p: Point, dash: boolean) =>
    pixels && (
      <rect
        x={p.x - REACH}
        y={p.y - REACH}
        width={2 * REACH}
        height={2 * REACH}
        fill="none"
        stroke="#fff"
        strokeWidth="2"
        strokeDasharray={dash ? "3 3" : undefined}
        style={{ mixBlendMode: "difference" }}
      />
    );

  return (
    <Dialog
      open
      wide
      onClose={props.onClose}
      title="A colour from a photo"
      says="Photograph the paint beside a grey card, in one light. The card takes the colour of the lamp out of it."
    >
      <div className="flex flex-wrap items-end gap-3">
        <label className="text-xs">
          <span className="mb-0.5 block text-soft">Photo</span>
          <input
            type="file"
            accept="image/*"
            className="text-xs"
            onChange={(e) => void open(e.target.files?.[0])}
          />
        </label>
        <div className="w-32">
          <TextField
            label="The card reflects, %"
            inputMode="decimal"
            value={reflects}
            onChange={(e) => setReflects(e.target.value)}
          />
        </div>
        <p role="status" className="text-xs">
          {!pixels
            ? "Choose a photo first."
            : !card
              ? "Point at the grey card, or move there with the arrow keys and press Enter."
              : "Now point at the paint. Its mean over a small square is taken."}
        </p>
      </div>
      {fault && (
        <Alert className="mt-2">
          <b>■</b> {fault}
        </Alert>
      )}
      <div className={`relative mt-2 bg-ground ${pixels ? "" : "h-24"}`}>
        <canvas
          ref={canvas}
          width={1}
          height={1}
          tabIndex={0}
          role="application"
          aria-label="Photo: arrow keys move the mark, Enter picks"
          className="block max-h-[52vh] max-w-full"
          onKeyDown={onKey}
          onClick={(e) => {
            if (!pixels) return;
            const box = e.currentTarget.getBoundingClientRect();
            void pick({
              x: Math.round(((e.clientX - box.left) / box.width) * pixels.width),
              y: Math.round(((e.clientY - box.top) / box.height) * pixels.height),
            });
          }}
        />
        {pixels && (
          <svg
            viewBox={`0 0 ${pixels.width} ${pixels.height}`}
            className="pointer-events-none absolute top-0 left-0 max-h-[52vh] max-w-full"
            aria-hidden="true"
          >
            {mark(at, true)}
            {card && mark(card, false)}
          </svg>
        )}
      </div>
      <div className="mt-3 flex items-center gap-2">
        {colour && (
          <>
            <svg width="60" height="30" role="img" aria-label={`Corrected colour ${colour}`}>
              <rect width="60" height="30" fill={colour} />
            </svg>
            <Button tone="go" onClick={() => props.onPick(colour)}>
              Take {colour}
            </Button>
          </>
        )}
        {card && (
          <Button
            onClick={() => {
              setCard(null);
              setColour(null);
            }}
          >
            Pick the card again
          </Button>
        )}
        <Button className="ml-auto" onClick={props.onClose}>
          Close
        </Button>
      </div>
    </Dialog>
  );
}
