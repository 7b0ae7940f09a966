/** The picture of a building under the lines of a viewport: the newest that there is, where it truly lies. */
import type { Viewport } from "../api/client";
import { onPaper, toScreen, type Camera, type Geometry, type Point } from "./geometry";
import { pictures } from "./pictures";
import { PixelStore } from "./imagePixels";

export type MadePicture = NonNullable<Viewport["picture"]>;

const made = new PixelStore(
  (key) => `/api/shaded-pictures/${key}/`,
  () => pictures.tell(),
);

/** The newest picture of each viewport that has one, by its id. */
export const madePictures = (viewports: readonly Viewport[]): ReadonlyMap<string, MadePicture> =>
  new Map(viewports.flatMap((v) => (v.picture ? [[v.id, v.picture] as const] : [])));

/** Whether the picture, or the areas of shadow, that a viewport asks for are still being made. */
export const isComing = ({ wanted_picture, picture, wanted_areas, areas }: Viewport) =>
  (wanted_picture !== "" && picture?.key !== wanted_picture) ||
  (wanted_areas !== "" && areas !== wanted_areas);

/**
 * Where a picture lies on paper in a viewport that may have been moved, cropped, panned, turned or scaled
 * since it was made: its middle, its size and its turn, degrees anticlockwise.
 */
export function placeOf(
  { window }: MadePicture,
  now: Geometry,
): { middle: Point; width: number; height: number; turn: number } {
  const grown = now.ratio / window.ratio;
  const [u, v] = window.centre;
  return {
    middle: onPaper(now, [u, v]),
    width: window.width * grown,
    height: window.height * grown,
    turn: now.turn - window.turn,
  };
}

/** Lay the picture of a viewport down, within what the context is clipped to. */
export function paintShaded(
  context: CanvasRenderingContext2D,
  picture: MadePicture,
  now: Geometry,
  camera: Camera,
) {
  const pixels = made.get(picture.key);
  if (!pixels) return;
  const { middle, width, height, turn } = placeOf(picture, now);
  const [x, y] = toScreen(camera, ...middle);
  context.save();
  context.translate(x, y);
  context.rotate((-turn * Math.PI) / 180);
  const [w, h] = [width * camera.scale, height * camera.scale];
  context.drawImage(pixels, -w / 2, -h / 2, w, h);
  context.restore();
}
