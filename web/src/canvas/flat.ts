/** What lies on a sheet beside its drawings, painted on a canvas: lines, areas, words, pictures of pixels. */
import type { DisplayItem, DrawingItem } from "../api/client";
import { toScreen, type Camera } from "./geometry";
import { pixelsOf } from "./imagePixels";
import { fittedTo, lengthOf, stretches } from "./patterns";
import { screened } from "./penColours";

/** The height of a capital over the size of the type: the same figure that the core's lettering has. */
const CAP_HEIGHT = 0.655;
const LETTERING = '"Dunefold Lettering"';

/** Lines of one pen that follow each other: stroked at once, before anything else is painted. */
export class Lines {
  private path: Path2D | null = null;
  private colour = "";
  private width = 0;

  constructor(private readonly context: CanvasRenderingContext2D) {}

  /** The path that lines of a pen are added to. */
  with(colour: string, width: number): Path2D {
    if (!this.path || colour !== this.colour || width !== this.width) {
      this.stroke();
      [this.colour, this.width, this.path] = [colour, width, new Path2D()];
    }
    return this.path;
  }

  /** Stroke those that there are. */
  stroke() {
    if (!this.path) return;
    this.context.strokeStyle = this.colour;
    this.context.lineWidth = this.width;
    this.context.stroke(this.path);
    this.path = null;
  }
}

/** Paint what is no drawing: lines, areas, words, pictures of pixels, and groups of them. */
export function paintFlat(
  context: CanvasRenderingContext2D,
  lines: Lines,
  item: Exclude<DisplayItem, DrawingItem | { type: "shaded" }>,
  camera: Camera,
  thinnest: number,
) {
  if ("parts" in item) {
    for (const part of item.parts) paintFlat(context, lines, part, camera, thinnest);
    return;
  }
  if (item.type === "path" && !item.pen.pattern.length) {
    const { width, colour, screen } = item.pen;
    const path = lines.with(screened(colour, screen), Math.max(width * camera.scale, thinnest));
    trace(path, item.points, camera, item.closed);
    return;
  }
  lines.stroke();
  if (item.type === "image") paintImage(context, item, camera);
  else if (item.type === "text") paintText(context, item, camera);
  else if (item.type === "fill") {
    context.beginPath();
    for (const ring of item.rings) trace(context, ring, camera, true);
    context.fillStyle = item.colour;
    context.globalAlpha = item.opacity;
    context.fill("evenodd");
    context.globalAlpha = 1;
  } else {
    context.strokeStyle = screened(item.pen.colour, item.pen.screen);
    context.lineWidth = Math.max(item.pen.width * camera.scale, thinnest);
    strokeDashed(context, item, camera);
  }
}

function trace(
  path: Path2D | CanvasRenderingContext2D,
  points: readonly (readonly number[])[],
  { scale, x, y }: Camera,
  closed: boolean,
) {
  points.forEach(([px = 0, py = 0], k) => {
    if (k) path.lineTo(x + px * scale, y - py * scale);
    else path.moveTo(x + px * scale, y - py * scale);
  });
  if (closed) path.closePath();
}

function paintText(
  context: CanvasRenderingContext2D,
  item: Extract<DisplayItem, { type: "text" }>,
  camera: Camera,
) {
  const [px, py] = toScreen(camera, item.at[0] ?? 0, item.at[1] ?? 0);
  context.fillStyle = item.colour;
  context.font = `${item.bold ? 700 : 400} ${(item.size / CAP_HEIGHT) * camera.scale}px ${LETTERING}`;
  context.textAlign = item.anchor === "middle" ? "center" : item.anchor;
  if (item.turn) {
    context.save();
    context.translate(px, py);
    context.rotate((-item.turn * Math.PI) / 180);
    context.fillText(item.text, 0, 0);
    context.restore();
  } else context.fillText(item.text, px, py);
}

/** A picture of pixels, or what is seen of it. */
function paintImage(
  context: CanvasRenderingContext2D,
  { box, window, picture }: Extract<DisplayItem, { type: "image" }>,
  camera: Camera,
) {
  const pixels = pixelsOf(picture);
  if (!pixels) return;
  const onScreen = ({ x, y, width, height }: typeof box) => {
    const [left, top] = toScreen(camera, x, y + height);
    return [left, top, width * camera.scale, height * camera.scale] as const;
  };
  context.save();
  if (window) {
    context.beginPath();
    context.rect(...onScreen(window));
    context.clip();
  }
  context.drawImage(pixels, ...onScreen(box));
  context.restore();
}

/** A line of a pattern, which is fitted to each of its stretches. */
function strokeDashed(
  context: CanvasRenderingContext2D,
  { points, closed, pen }: Extract<DisplayItem, { type: "path" }>,
  camera: Camera,
) {
  for (const stretch of stretches(points, closed)) {
    const pattern = fittedTo(
      pen.pattern.map((length) => length * pen.width),
      lengthOf(stretch),
    );
    context.setLineDash(pattern.map((length) => length * camera.scale));
    context.beginPath();
    for (const [x = 0, y = 0] of stretch) context.lineTo(...toScreen(camera, x, y));
    context.stroke();
  }
  context.setLineDash([]);
}

/** The lettering is there once the browser has both of its weights. */
export const letteringReady = Promise.all([
  document.fonts.load(`400 20px ${LETTERING}`),
  document.fonts.load(`700 20px ${LETTERING}`),
]);
