import type { Schema } from "../../api/client";

export type Tray = Schema["TrayReading"];
export type Base = Schema["BaseReading"];
export type Element = Schema["ElementDto"];
export type Wish = Schema["BaseWishDto"];
export type Flat = NonNullable<NonNullable<Wish["flats"]>[number]>;
export type Shape = NonNullable<Wish["shape"]>;

/** Half of a base either way, mm: a round or square one is as high as it is wide. */
export const halfOf = (shape: Shape): readonly [number, number] => [
  shape.widthMm / 2,
  (shape.outline === "round" || shape.outline === "square" ? shape.widthMm : shape.heightMm) / 2,
];

export const outlines: readonly { value: Shape["outline"]; text: string }[] = [
  { value: "round", text: "round" },
  { value: "oval", text: "oval" },
  { value: "square", text: "square" },
  { value: "rectangle", text: "rectangle" },
  { value: "tile", text: "tile, joins others" },
];

export type Place = Schema["TextureDto"]["place"];

export const texturePlaces: readonly { value: Place; text: string }[] = [
  { value: "anywhere", text: "in drifts" },
  { value: "by reeds", text: "about reeds and tufts" },
  { value: "by rocks", text: "at the foot of rocks" },
  { value: "by feet", text: "dust about the feet" },
  { value: "path", text: "a path across" },
  { value: "puddle", text: "a puddle" },
];

/** "32 mm round", "60 × 35 mm oval". */
export const sizeWords = (s: Shape) =>
  s.outline === "round" || s.outline === "square"
    ? `${s.widthMm} mm ${s.outline}`
    : `${s.widthMm} × ${s.heightMm} mm ${s.outline}`;
