/** The painter: strokes linework into pictures in a thread of its own, so that no gesture waits for it. */
import { fillRegions, setReal, type PicturePlacement } from "./hatching";
import { ROLES, stated, screened } from "./penColours";
import { elementAt, fetchLinework, pointsOf, type Linework, type Polylines } from "./linework";
import { fittedTo, lengthOf, stretches } from "./patterns";
import { SnapIndex } from "./snapPoints";
import type { PainterRequest, PainterAnswer } from "./pictures";

/** As many drawings are kept ready as a large set shows at once. */
const MAX_KEPT = 60;
const ready = new Map<string, Promise<Linework>>();

function linework(key: string): Promise<Linework> {
  let found = ready.get(key);
  if (!found) {
    found = fetchLinework(key);
    found.catch(() => ready.delete(key));
    for (const oldest of ready.keys()) if (ready.size >= MAX_KEPT) ready.delete(oldest);
  }
  ready.delete(key); // what was request for last is forgotten last
  ready.set(key, found);
  return found;
}

/** What is snapped to in a drawing; made when it is first asked for. */
const indices = new WeakMap<Linework, SnapIndex>();

function indexOf(drawing: Linework): SnapIndex {
  let index = indices.get(drawing);
  if (!index) indices.set(drawing, (index = new SnapIndex(drawing.lines, drawing.elementOf, drawing.isEdge)));
  return index;
}

self.onmessage = async ({ data: request }: MessageEvent<PainterRequest>) => {
  const answer: PainterAnswer = { number: request.number };
  try {
    const lines = await linework(request.linework);
    if ("region" in request) answer.bitmap = picture(lines, request);
    else if (request.ask === "snap") answer.snap = indexOf(lines).nearest(request.at, request.reach);
    else answer.found = elementAt(lines, request.at, request.reach);
  } catch (error) {
    answer.problem = error instanceof Error ? error.message : String(error);
  }
  self.postMessage(answer, { transfer: answer.bitmap ? [answer.bitmap] : [] });
};

function picture(
  { lines, roles, regions }: Linework,
  { style, region: [x0, y0, x1, y1], pixels, ratio, turn }: Extract<PainterRequest, { region: unknown }>,
): ImageBitmap {
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.ceil((x1 - x0) * pixels)),
    Math.max(1, Math.ceil((y1 - y0) * pixels)),
  );
  // Stroked by the processor: many narrow lines are much faster so where there is no graphics card.
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("This browser paints no pictures beside the page.");
  // From real millimetres, turned about the origin, to the picture's pixels; paper mm lie between.
  const placement: PicturePlacement = {
    ratio,
    turn,
    pixels,
    x: -x0 * pixels,
    y: y1 * pixels,
    thinnest: style.thinnest,
  };
  fillRegions(context, regions, style.cuts, placement);
  setReal(context, placement);
  context.lineJoin = "round";
  const scale = ratio * pixels;
  const strokes = [...roles].flatMap(([role, layers]) => {
    const pen = style.pens[role];
    const rank = ROLES.indexOf(role as (typeof ROLES)[number]);
    return pen
      ? [...layers].map(([layer, group]) => ({
          group,
          rank,
          pen: { ...pen, ...stated(style.layers[layer]) },
        }))
      : [];
  });
  for (const { group, pen } of strokes.sort((a, b) => a.pen.width - b.pen.width || b.rank - a.rank)) {
    const broad = Math.max(pen.width * pixels, style.thinnest);
    context.strokeStyle = screened(pen.colour, pen.screen);
    context.lineWidth = broad / scale;
    // Round ends show only on broad lines; the end of a dash is square, or round ends would eat up the gap.
    context.lineCap = broad > 1.5 && !pen.pattern.length ? "round" : "butt";
    if (pen.pattern.length)
      dashed(
        context,
        lines,
        group.lines,
        pen.pattern.map((length) => (length * pen.width) / ratio),
      );
    else context.stroke(group.path);
  }
  return canvas.transferToImageBitmap();
}

/** Lines of a pattern, which is fitted to each of their stretches. */
function dashed(
  context: OffscreenCanvasRenderingContext2D,
  lines: Polylines,
  which: readonly number[],
  pattern: readonly number[],
) {
  for (const line of which)
    for (const stretch of stretches(pointsOf(lines, line))) {
      context.setLineDash(fittedTo(pattern, lengthOf(stretch)));
      context.beginPath();
      for (const [u = 0, v = 0] of stretch) context.lineTo(u, v);
      context.stroke();
    }
  context.setLineDash([]);
}
