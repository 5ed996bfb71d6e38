import { Button } from "../../kit/Button";
import { NumberField } from "../../kit/NumberField";
import { Select } from "../../kit/Select";
import { Slide } from "../../kit/Slide";
import { FlatsDrawing } from "./Flats";
import { outlines, texturePlaces, type Tray, type Wish } from "./types";

const MOST_COUNT = 12,
  MOST_MM = 300,
  LEAST_MM = 15,
  MOST_TEXTURES = 6,
  MOST_FLATS = 8;

const counts = [
  ["rocks", "Rocks"],
  ["cork", "Cork"],
  ["tufts", "Tufts"],
  ["reeds", "Reeds"],
  ["planks", "Planks"],
] as const;

/** What is wanted on every base: shape, rim, flats, textures, and how many of what. */
export function WishPanel({ tray, wish, onWish }: { tray: Tray; wish: Wish; onWish: (wish: Wish) => void }) {
  const set = (change: Partial<Wish>) => onWish({ ...wish, ...change });
  const shape = wish.shape!;
  const textures = wish.textures!.map((t) => t!);
  const flats = (wish.flats ?? []).map((f) => f!);
  const texture = (index: number, change: Partial<(typeof textures)[number]>) =>
    set({ textures: textures.map((t, i) => (i === index ? { ...t, ...change } : t)) });
  const flat = (index: number, change: Partial<(typeof flats)[number]>) =>
    set({ flats: flats.map((f, i) => (i === index ? { ...f, ...change } : f)) });
  const left = Math.round((1 - textures.slice(0, -1).reduce((s, t) => s + t.share, 0)) * 100);
  const round = shape.outline === "round" || shape.outline === "square";
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4 text-sm">
      <div className="grid grid-cols-3 items-start gap-2">
        <div className="col-span-3">
          <Select
            label="Shape"
            value={shape.outline}
            options={outlines}
            onChange={(outline) => set({ shape: { ...shape, outline } })}
          />
        </div>
        <NumberField
          label={round ? "Across" : "Wide"}
          unit="mm"
          least={LEAST_MM}
          most={MOST_MM}
          value={shape.widthMm}
          onSet={(widthMm) => set({ shape: { ...shape, widthMm, ...(round ? { heightMm: widthMm } : {}) } })}
        />
        {!round && (
          <NumberField
            label="High"
            unit="mm"
            least={LEAST_MM}
            most={MOST_MM}
            value={shape.heightMm}
            onSet={(heightMm) => set({ shape: { ...shape, heightMm } })}
          />
        )}
        <NumberField
          label="Rim kept free"
          unit="mm"
          least={0}
          most={20}
          value={tray.marginMm}
          onSet={(marginMm) => set({ marginMm })}
        />
        <NumberField
          label="In a row"
          unit=""
          least={1}
          most={12}
          value={wish.columns}
          onSet={(n) => set({ columns: Math.round(n) })}
        />
      </div>
      <fieldset className="min-w-0">
        <legend className="text-xs text-soft">What the top is made of, the uppermost first</legend>
        {textures.map((t, i) => (
          <div
            key={i}
            className="mt-1.5 grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_64px] items-start gap-1.5"
          >
            <Select
              label={`Texture ${i + 1}`}
              hideLabel
              value={t.zoneId ?? ""}
              options={[
                { value: "", text: "bare" },
                ...tray.zones.map((z) => ({ value: z.zoneId, text: z.name })),
              ]}
              onChange={(zoneId) => texture(i, { zoneId: zoneId || null })}
            />
            {i < textures.length - 1 ? (
              <>
                <Select
                  label={`Where texture ${i + 1} lies`}
                  hideLabel
                  value={t.place}
                  options={texturePlaces}
                  onChange={(place) => texture(i, { place })}
                />
                <NumberField
                  label={`Share of texture ${i + 1}`}
                  hideLabel
                  unit="%"
                  least={0}
                  most={100}
                  value={Math.round(t.share * 1000) / 10}
                  onSet={(n) => texture(i, { share: Math.round(n * 10) / 1000 })}
                />
              </>
            ) : (
              <p className="col-span-2 self-center text-xs text-soft">the ground, {left} %</p>
            )}
          </div>
        ))}
        <div className="mt-1.5 flex gap-1.5">
          <Button
            disabled={textures.length >= MOST_TEXTURES || left <= 10}
            onClick={() => set({ textures: [{ place: "anywhere", share: 0.1, zoneId: null }, ...textures] })}
          >
            Another texture
          </Button>
          <Button disabled={textures.length < 2} onClick={() => set({ textures: textures.slice(1) })}>
            Without the first
          </Button>
        </div>
      </fieldset>
      <div className="grid grid-cols-2 items-start gap-2">
        {counts.map(([key, label]) => (
          <NumberField
            key={key}
            label={`${label} on a base`}
            unit=""
            least={0}
            most={MOST_COUNT}
            value={wish[key]}
            onSet={(n) => set({ [key]: Math.round(n * 10) / 10 })}
          />
        ))}
      </div>
      <Slide
        label="From shy to wild"
        says={`${Math.round(wish.spread * 100)} %`}
        value={Math.round(wish.spread * 10)}
        min={0}
        max={10}
        step={1}
        onChange={(n) => set({ spread: n / 10 })}
      />
      <fieldset className="min-w-0">
        <legend className="text-xs text-soft">Kept flat: where something is to stand, from the middle</legend>
        {flats.length > 0 && (
          <FlatsDrawing
            shape={shape}
            marginMm={tray.marginMm}
            flats={flats}
            onMove={flat}
            onRemove={(index) => set({ flats: flats.filter((_, i) => i !== index) })}
          />
        )}
        {flats.map((f, i) => (
          <div key={i} className="mt-1.5 grid grid-cols-3 items-start gap-1.5">
            <Select
              label={`What stands on flat ${i + 1}`}
              hideLabel
              value={f.kind}
              options={[
                { value: "foot", text: "foot" },
                { value: "hull", text: "hull" },
                { value: "magnet", text: "magnet" },
              ]}
              onChange={(kind) => flat(i, { kind })}
            />
            {(
              [
                ["x", "to the right"],
                ["y", "down"],
                ["widthMm", "long"],
                ["heightMm", "wide"],
              ] as const
            ).map(([key, label]) => (
              <NumberField
                key={key}
                label={`Flat ${i + 1}, ${label}`}
                unit="mm"
                least={key === "x" || key === "y" ? -MOST_MM : 0.5}
                most={MOST_MM}
                value={f[key]}
                onSet={(n) => flat(i, { [key]: n })}
              />
            ))}
            <NumberField
              label={`Flat ${i + 1}, turned`}
              unit=""
              least={-360}
              most={360}
              value={f.turn}
              onSet={(turn) => flat(i, { turn })}
            />
          </div>
        ))}
        <div className="mt-1.5 flex flex-wrap gap-1.5">
          <Button
            disabled={flats.length >= MOST_FLATS}
            onClick={() =>
              set({ flats: [...flats, { kind: "foot", x: 0, y: 0, widthMm: 8, heightMm: 3.6, turn: 90 }] })
            }
          >
            Another flat
          </Button>
          <Button disabled={flats.length === 0} onClick={() => set({ flats: flats.slice(0, -1) })}>
            Without the last
          </Button>
        </div>
      </fieldset>
    </div>
  );
}
