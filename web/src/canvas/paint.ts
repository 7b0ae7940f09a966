/** Painting a display list on a canvas, as the other writers write it to a file. */
import type { DisplayList, DrawingItem, Viewport } from "../api/client";
import {
  geometryOf,
  placementOf,
  toPaper,
  toScreen,
  type Geometry,
  type Camera,
  type Point,
} from "./geometry";
import { withLines } from "./hatching";
import { inWorkingColours, screened } from "./penColours";
import { Lines, paintFlat } from "./flat";
import { BOARD, pictures, type Style, type Wanted } from "./pictures";
import { paintShaded, type MadePicture } from "./shaded";

/** No line on the board is thinner than this, in pixels, or it would be lost there. */
const THINNEST = 0.55;
/**
 * How much more than what is seen is painted, so that a little movement shows nothing unpainted; shares of
 * the size.
 */
const BEYOND = 0.35;
/** How much of a drawing is painted beyond its frame, while that is not dragged; shares of its size. */
const CROP = 0.1;

type Space = Readonly<{ width: number; height: number }>;

export interface Scene {
  display: DisplayList;
  /** Where each viewport is just now; that may be ahead of the display list while it is dragged. */
  geometry: ReadonlyMap<string, Geometry>;
  /** The newest picture under the lines of each viewport, by its id. */
  shaded?: ReadonlyMap<string, MadePicture>;
  /** Where its pictures are kept: the board and each small picture have their own. */
  place: string;
  /** The viewport being dragged, of which more may soon be seen than its frame shows now. */
  held?: ReadonlySet<string>;
  /** The owners to paint for: ids of viewports, blank for the bare sheet. Left out, everything is painted. */
  only?: (owner: string) => boolean;
  /** The least width of a line, in pixels; small pictures want less than the board. */
  thinnest?: number;
  /** Whether drawings are in working colours, and not as they are plotted. */
  working?: boolean;
}

/**
 * Paint the items of a sheet. `dpr` is device pixels for a pixel of the page. Whether every drawing is there
 * as it should be.
 */
export function paint(context: CanvasRenderingContext2D, scene: Scene, camera: Camera, dpr: number): boolean {
  const thinnest = scene.thinnest ?? THINNEST;
  const before = new Map<string, Point>();
  for (const item of scene.display.items)
    if (item.type === "drawing") before.set(item.viewport, cornerOf(item.clip));
  let complete = true;
  context.save();
  context.setTransform(dpr, 0, 0, dpr, 0, 0);
  const lines = new Lines(context);
  for (const item of scene.display.items) {
    const owner = "viewport" in item ? item.viewport : "";
    if (scene.only && !scene.only(owner)) continue;
    const geometry = scene.geometry.get(owner);
    // A viewport that was just deleted stays in the display list until the server has said so too.
    if (owner && !geometry) continue;
    if (item.type === "drawing") {
      lines.stroke();
      if (
        geometry &&
        !paintDrawing(context, { ...item, ...placementOf(geometry) }, scene, camera, dpr, thinnest)
      )
        complete = false;
    } else if (item.type === "shaded") {
      const picture = scene.shaded?.get(owner);
      if (geometry && picture) {
        lines.stroke();
        context.save();
        context.clip(frameOn(camera, placementOf(geometry).clip));
        paintShaded(context, picture, geometry, camera);
        context.restore();
      }
    } else {
      const corner = before.get(owner);
      const by: Point = geometry && corner ? [geometry.x - corner[0], geometry.y - corner[1]] : [0, 0];
      paintFlat(
        context,
        lines,
        item,
        { ...camera, x: camera.x + by[0] * camera.scale, y: camera.y - by[1] * camera.scale },
        thinnest,
      );
    }
  }
  lines.stroke();
  context.restore();
  return complete;
}

const cornerOf = (points: readonly (readonly number[])[]): Point => [
  Math.min(...points.map((p) => p[0] ?? 0)),
  Math.min(...points.map((p) => p[1] ?? 0)),
];

const styles = new WeakMap<object, Map<string, Style>>();

function styleOf({ pens, layers, cuts, redrawn }: DrawingItem, thinnest: number, working: boolean): Style {
  const known = styles.get(pens) ?? new Map<string, Style>();
  styles.set(pens, known);
  const key = `${thinnest} ${working}`;
  let style = known.get(key);
  if (!style) {
    const inked = { pens, layers, cuts, redrawn };
    const drawn = working ? inWorkingColours(inked) : inked;
    style = {
      ...drawn,
      cuts: withLines(drawn.cuts),
      redrawn: drawn.redrawn.map((each) => ({ ...each, cut: withLines(each.cut ? [each.cut] : [])[0] })),
      thinnest,
    };
    known.set(key, style);
  }
  return style;
}

/** The outline of a viewport on the screen. */
function frameOn(camera: Camera, clip: readonly (readonly number[])[]): Path2D {
  const frame = new Path2D();
  clip.forEach((corner, k) => {
    const [px, py] = toScreen(camera, corner[0] ?? 0, corner[1] ?? 0);
    if (k) frame.lineTo(px, py);
    else frame.moveTo(px, py);
  });
  frame.closePath();
  return frame;
}

function paintDrawing(
  context: CanvasRenderingContext2D,
  item: DrawingItem,
  scene: Scene,
  camera: Camera,
  dpr: number,
  thinnest: number,
): boolean {
  const frame = frameOn(camera, item.clip);
  context.save();
  context.clip(frame);
  if (item.opaque) {
    context.fillStyle = "#ffffff";
    context.fill(frame);
  }
  const complete = paintPicture(context, item, scene, camera, dpr);
  context.restore();
  if (item.outline) {
    context.strokeStyle = screened(item.outline.colour, item.outline.screen);
    context.lineWidth = Math.max(item.outline.width * camera.scale, thinnest);
    context.stroke(frame);
  }
  return complete;
}

/** The picture of a drawing that is wanted, and what of it is needed; null where nothing of it is seen. */
function pictureOf(item: DrawingItem, scene: Scene, camera: Camera, dpr: number, space: Space) {
  const [left, top] = toPaper(camera, 0, 0);
  const [right, bottom] = toPaper(camera, space.width, space.height);
  const [px = 0, py = 0] = item.place;
  const xs = item.clip.map((p) => p[0] ?? 0);
  const ys = item.clip.map((p) => p[1] ?? 0);
  const own = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const;
  const need = [
    Math.max(own[0], left),
    Math.max(own[1], bottom),
    Math.min(own[2], right),
    Math.min(own[3], top),
  ] as const;
  if (need[0] >= need[2] || need[1] >= need[3]) return null;
  const held = scene.held?.has(item.viewport);
  const whole = held ? ([left, bottom, right, top] as const) : need;
  const [padX, padY] = [(whole[2] - whole[0]) * BEYOND, (whole[3] - whole[1]) * BEYOND];
  // Beyond its frame only what a crop may uncover before the next picture comes.
  const [restX, restY] = held ? [Infinity, Infinity] : [(own[2] - own[0]) * CROP, (own[3] - own[1]) * CROP];
  const wanted: Wanted = {
    linework: item.linework,
    style: styleOf(item, (scene.thinnest ?? THINNEST) * dpr, scene.working ?? false),
    ratio: item.ratio,
    turn: item.turn,
    pixels: camera.scale * dpr,
    region: [
      Math.max(whole[0] - padX, own[0] - restX) - px,
      Math.max(whole[1] - padY, own[1] - restY) - py,
      Math.min(whole[2] + padX, own[2] + restX) - px,
      Math.min(whole[3] + padY, own[3] + restY) - py,
    ],
  };
  const region = [need[0] - px, need[1] - py, need[2] - px, need[3] - py] as const;
  return { place: `${scene.place}/${item.viewport}`, wanted, region };
}

/** Have the pictures of a sheet painted that is not on the board yet, for a board of so many pixels. */
export function prepare(
  display: DisplayList,
  on: readonly Viewport[],
  camera: Camera,
  space: Space,
  working = false,
) {
  const geometry = new Map(on.map((v) => [v.id, geometryOf(v)]));
  const scene: Scene = { display, geometry, place: BOARD, working };
  const dpr = window.devicePixelRatio || 1;
  for (const item of scene.display.items) {
    const own = item.type === "drawing" && geometry.get(item.viewport);
    if (!own) continue;
    const found = pictureOf({ ...item, ...placementOf(own) }, scene, camera, dpr, space);
    if (found) pictures.get(found.place, found.wanted, found.region);
  }
}

function paintPicture(
  context: CanvasRenderingContext2D,
  item: DrawingItem,
  scene: Scene,
  camera: Camera,
  dpr: number,
): boolean {
  const { width, height } = context.canvas;
  const found = pictureOf(item, scene, camera, dpr, { width: width / dpr, height: height / dpr });
  if (!found) return true;
  const [px = 0, py = 0] = item.place;
  const { picture, complete } = pictures.get(found.place, found.wanted, found.region);
  if (picture) {
    const grown = item.ratio / picture.ratio;
    const [x, y] = toScreen(camera, px + picture.region[0] * grown, py + picture.region[3] * grown);
    const scale = (camera.scale * grown) / picture.pixels;
    const exact = Math.abs(scale * dpr - 1) < 1e-6;
    // A picture of the very size lies on whole pixels, or its fine lines would blur.
    const at = (figure: number) => (exact ? Math.round(figure * dpr) / dpr : figure);
    context.drawImage(
      picture.bitmap,
      at(x),
      at(y),
      picture.bitmap.width * scale,
      picture.bitmap.height * scale,
    );
  }
  return complete;
}
