/** Painting a display list on a canvas, as the other writers write it to a file. */
import type { DisplayItem, DisplayList, DrawingItem } from "../api/client";
import { placementOf, toScreen, type Geometry, type Look } from "./geometry";
import type { Linework } from "./linework";

/** The height of a capital over the size of the type: the same figure that the core's lettering has. */
const CAP_HEIGHT = 0.655;
const LETTERING = '"Dunefold Lettering"';
/** No line on the board is thinner than this, in pixels, or it would be lost there. */
const THINNEST = 0.55;

export interface Scene {
  display: DisplayList;
  linework: ReadonlyMap<string, Linework>;
  /** Where each viewport is just now; that may be ahead of the display list while the hand moves it. */
  geometry: ReadonlyMap<string, Geometry>;
}

export interface Choice {
  /** Leave out all that belongs to this viewport. */
  without?: string | null;
  /** Paint only what belongs to this viewport. */
  only?: string;
  /** The least width of a line, in pixels; small pictures want less than the board. */
  thinnest?: number;
}

/** Paint the items of a sheet. `dpr` is device pixels for a pixel of the page. */
export function paint(context: CanvasRenderingContext2D, scene: Scene, look: Look, dpr: number, choice: Choice = {}) {
  const thinnest = choice.thinnest ?? THINNEST;
  const before = new Map<string, DrawingItem>();
  for (const item of scene.display.items) if (item.type === "drawing") before.set(item.viewport, item);
  for (const item of scene.display.items) {
    const owner = "viewport" in item ? item.viewport : "";
    if (choice.without && owner === choice.without) continue;
    if (choice.only !== undefined && owner !== choice.only) continue;
    const geometry = scene.geometry.get(owner);
    // A viewport that was just deleted stays in the display list until the server has said so too.
    if (owner && !geometry) continue;
    context.save();
    context.setTransform(dpr, 0, 0, dpr, 0, 0);
    if (item.type === "drawing") {
      if (geometry) paintDrawing(context, { ...item, ...placementOf(geometry) }, scene.linework.get(item.linework), look, dpr, thinnest);
    } else {
      const corner = before.get(owner)?.clip[0];
      const by: [number, number] = geometry && corner ? [geometry.x - (corner[0] ?? 0), geometry.y - (corner[1] ?? 0)] : [0, 0];
      paintFlat(context, item, { ...look, x: look.x + by[0] * look.scale, y: look.y - by[1] * look.scale }, thinnest);
    }
    context.restore();
  }
}

function paintDrawing(
  context: CanvasRenderingContext2D,
  item: DrawingItem,
  linework: Linework | undefined,
  look: Look,
  dpr: number,
  thinnest: number,
) {
  context.beginPath();
  item.clip.forEach((corner, k) => {
    const [px, py] = toScreen(look, corner[0] ?? 0, corner[1] ?? 0);
    if (k) context.lineTo(px, py);
    else context.moveTo(px, py);
  });
  context.closePath();
  context.clip();
  if (!linework) return;
  const pixels = look.scale * item.ratio;
  const [px, py] = toScreen(look, item.place[0] ?? 0, item.place[1] ?? 0);
  context.setTransform(dpr * pixels, 0, 0, -dpr * pixels, dpr * px, dpr * py);
  context.fillStyle = item.fill;
  context.fill(linework.cut, "evenodd");
  context.lineCap = "round";
  context.lineJoin = "round";
  const roles = Object.entries(item.pens).sort(([, a], [, b]) => a.width - b.width);
  for (const [role, pen] of roles) {
    const path = linework.roles.get(role);
    if (!path) continue;
    context.strokeStyle = pen.colour;
    context.lineWidth = Math.max(pen.width / item.ratio, thinnest / pixels);
    // The end of a dash is square, or its round ends would eat up the gap.
    context.lineCap = pen.pattern.length ? "butt" : "round";
    context.setLineDash(pen.pattern.map((length) => (length * pen.width) / item.ratio));
    context.stroke(path);
  }
}

function paintFlat(context: CanvasRenderingContext2D, item: Exclude<DisplayItem, DrawingItem>, look: Look, thinnest: number) {
  if (item.type === "text") {
    const [px, py] = toScreen(look, item.at[0] ?? 0, item.at[1] ?? 0);
    context.fillStyle = item.colour;
    context.font = `${item.bold ? 700 : 400} ${(item.size / CAP_HEIGHT) * look.scale}px ${LETTERING}`;
    context.textAlign = item.anchor === "middle" ? "center" : item.anchor;
    context.fillText(item.text, px, py);
    return;
  }
  const path = new Path2D();
  for (const ring of item.type === "path" ? [item.points] : item.rings) {
    ring.forEach((p, k) => {
      const [px, py] = toScreen(look, p[0] ?? 0, p[1] ?? 0);
      if (k) path.lineTo(px, py);
      else path.moveTo(px, py);
    });
    if (item.type === "fill" || item.closed) path.closePath();
  }
  if (item.type === "fill") {
    context.fillStyle = item.colour;
    context.fill(path, "evenodd");
  } else {
    context.strokeStyle = item.pen.colour;
    context.lineWidth = Math.max(item.pen.width * look.scale, thinnest);
    context.stroke(path);
  }
}

/** The lettering is there once the browser has both of its weights. */
export const letteringReady = Promise.all([
  document.fonts.load(`400 20px ${LETTERING}`),
  document.fonts.load(`700 20px ${LETTERING}`),
]);
