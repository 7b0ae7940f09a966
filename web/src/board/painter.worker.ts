/** The painter: strokes linework into pictures in a thread of its own, so that no gesture waits for it. */
import { elementAt, fetchLinework, type Linework } from "./linework";
import type { Asked, Told } from "./pictures";

/** As many drawings are kept ready as a large set shows at once. */
const KEPT = 60;
const ready = new Map<string, Promise<Linework>>();

function linework(key: string): Promise<Linework> {
  let found = ready.get(key);
  if (!found) {
    found = fetchLinework(key);
    found.catch(() => ready.delete(key));
    for (const oldest of ready.keys()) if (ready.size >= KEPT) ready.delete(oldest);
  }
  ready.delete(key); // what was asked for last is forgotten last
  ready.set(key, found);
  return found;
}

self.onmessage = async ({ data: asked }: MessageEvent<Asked>) => {
  let told: Told = { number: asked.number };
  try {
    const lines = await linework(asked.linework);
    told = "at" in asked ? { ...told, found: elementAt(lines, asked.at, asked.reach) } : { ...told, bitmap: picture(lines, asked) };
  } catch (error) {
    told = { ...told, problem: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(told, { transfer: told.bitmap ? [told.bitmap] : [] });
};

function picture({ roles, cut }: Linework, { style, region: [x0, y0, x1, y1], pixels, ratio, turn }: Extract<Asked, { region: unknown }>): ImageBitmap {
  const canvas = new OffscreenCanvas(Math.max(1, Math.ceil((x1 - x0) * pixels)), Math.max(1, Math.ceil((y1 - y0) * pixels)));
  // Stroked by the processor: many narrow lines are much faster so where there is no graphics card.
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("This browser paints no pictures beside the page.");
  // From real millimetres, turned about the origin, to the picture's pixels; paper mm lie between.
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const scale = ratio * pixels;
  context.setTransform(scale * cos, -scale * sin, -scale * sin, -scale * cos, -x0 * pixels, y1 * pixels);
  context.fillStyle = style.fill;
  context.fill(cut, "evenodd");
  context.lineJoin = "round";
  const strokes = [...roles].flatMap(([role, layers]) => {
    const pen = style.pens[role];
    return pen ? [...layers].map(([layer, path]) => ({ path, ...pen, ...known(style.layers[layer]) })) : [];
  });
  for (const { path, width, colour, pattern } of strokes.sort((a, b) => a.width - b.width)) {
    const broad = Math.max(width * pixels, style.thinnest);
    context.strokeStyle = colour;
    context.lineWidth = broad / scale;
    // Round ends show only on broad lines; the end of a dash is square, or round ends would eat up the gap.
    context.lineCap = broad > 1.5 && !pattern.length ? "round" : "butt";
    context.setLineDash(pattern.map((length) => (length * width) / ratio));
    context.stroke(path);
  }
  return canvas.transferToImageBitmap();
}

/** What a change says, without what it leaves as it is. */
const known = (change: { width: number | null; colour: string | null } | undefined) =>
  Object.fromEntries(Object.entries(change ?? {}).filter(([, value]) => value != null)) as { width?: number; colour?: string };
