/** The painter: strokes linework into pictures in a thread of its own, so that no gesture waits for it. */
import { cutOf, fillRegions, setReal, type PicturePlacement } from "./hatching";
import { screened } from "./penColours";
import { elementAt, fetchLinework, pointsOf, type Linework } from "./linework";
import { fittedTo, lengthOf, stretches } from "./patterns";
import { areaAt, lineAt, linesAlike } from "./picking";
import { areaBy, divided, notHidden, type Redrawn } from "./redrawn";
import { SnapIndex } from "./snapPoints";
import { strokesOf } from "./strokes";
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
  ready.delete(key); // what was asked for last is forgotten last
  ready.set(key, found);
  return found;
}

/**
 * What is snapped to in a drawing, by what of it is hidden, and what can be picked of it; made when they are
 * first asked for.
 */
const indices = new WeakMap<Linework, Map<string, SnapIndex>>();
const wholeIndices = new WeakMap<Linework, SnapIndex>();
/** So many ways in which a drawing is hidden are kept ready. */
const MAX_WAYS = 3;
/** Of what is drawn otherwise so many lines are shown. */
const MAX_SHOWN = 4_000;

/** The lines and parts of lines that one touch-up chooses, and those that it adds. */
function touched({ lines }: Linework, redrawn: Redrawn): [number, number][][] {
  const whole = redrawn.whole.flatMap(([first, last]) =>
    Array.from({ length: Math.min(last - first + 1, MAX_SHOWN) }, (_, k) => pointsOf(lines, first + k)),
  );
  const { pieces } = divided(lines, [{ whole: [], parts: redrawn.parts }]);
  const parts = pieces.filter((piece) => piece.by === 0).map((piece) => piece.points);
  return [...whole, ...parts, ...redrawn.added].slice(0, MAX_SHOWN);
}

function wholeIndexOf(drawing: Linework): SnapIndex {
  let index = wholeIndices.get(drawing);
  if (!index) wholeIndices.set(drawing, (index = new SnapIndex(drawing.lines, drawing.elementOf)));
  return index;
}

function indexOf(drawing: Linework, redrawn: readonly Redrawn[]): SnapIndex {
  const key = JSON.stringify(
    redrawn.some((each) => each.hidden)
      ? redrawn.map(({ whole, parts, hidden }) => ({ whole, parts, hidden }))
      : [],
  );
  let ways = indices.get(drawing);
  if (!ways) indices.set(drawing, (ways = new Map<string, SnapIndex>()));
  let index = ways.get(key);
  if (!index) {
    const { lines, source } = notHidden(drawing.lines, key === "[]" ? [] : redrawn);
    const of = (line: number) => source[line] ?? 0;
    index = new SnapIndex(
      lines,
      (line) => drawing.elementOf(of(line)),
      (line) => drawing.isEdge(of(line)),
    );
    for (const oldest of ways.keys()) if (ways.size >= MAX_WAYS) ways.delete(oldest);
    ways.set(key, index);
  }
  return index;
}

self.onmessage = async ({ data: request }: MessageEvent<PainterRequest>) => {
  const answer: PainterAnswer = { number: request.number };
  try {
    const lines = await linework(request.linework);
    if ("region" in request) answer.bitmap = await picture(lines, request);
    else if (request.ask === "snap")
      answer.snap = indexOf(lines, request.redrawn).nearest(request.at, request.reach);
    else if (request.ask === "pick") {
      const at = [...request.at] as const;
      answer.picked =
        lineAt(lines, wholeIndexOf(lines), at, request.reach, request.redrawn) ?? areaAt(lines, at);
    } else if (request.ask === "alike")
      answer.pieces = [
        linesAlike(lines, request.wanted)
          .slice(0, MAX_SHOWN)
          .map((line) => pointsOf(lines.lines, line)),
      ];
    else if (request.ask === "pieces") answer.pieces = request.redrawn.map((each) => touched(lines, each));
    else if (request.ask === "element") answer.found = elementAt(lines, request.at, request.reach);
  } catch (error) {
    answer.problem = error instanceof Error ? error.message : String(error);
  }
  self.postMessage(answer, { transfer: answer.bitmap ? [answer.bitmap] : [] });
};

/**
 * Every picture is painted here. A canvas of its own for each would have to wait for the page, where there is
 * no graphics card: a new one asks there whether there is.
 */
const canvas = new OffscreenCanvas(1, 1);

/** The canvas with room for a picture, and nothing on it. */
function cleared(width: number, height: number): OffscreenCanvasRenderingContext2D {
  // Stroked by the processor: many narrow lines are much faster so where there is no graphics card.
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("This browser paints no pictures beside the page.");
  if (canvas.width < width) canvas.width = width;
  if (canvas.height < height) canvas.height = height;
  context.resetTransform();
  context.clearRect(0, 0, canvas.width, canvas.height);
  return context;
}

function picture(
  drawing: Linework,
  { style, region: [x0, y0, x1, y1], pixels, ratio, turn }: Extract<PainterRequest, { region: unknown }>,
): Promise<ImageBitmap> {
  const width = Math.max(1, Math.ceil((x1 - x0) * pixels));
  const height = Math.max(1, Math.ceil((y1 - y0) * pixels));
  const context = cleared(width, height);
  // From real millimetres, turned about the origin, to the picture's pixels; paper mm lie between.
  const placement: PicturePlacement = {
    ratio,
    turn,
    pixels,
    x: -x0 * pixels,
    y: y1 * pixels,
    thinnest: style.thinnest,
    width,
    height,
  };
  const { cuts, redrawn } = style;
  const filled = drawing.regions.map((region, k) => {
    const instead = areaBy(redrawn, k);
    return [region, instead?.hidden ? undefined : (instead?.cut ?? cutOf(cuts, region.material))] as const;
  });
  fillRegions(context, filled, placement);
  setReal(context, placement);
  context.lineJoin = "round";
  const scale = ratio * pixels;
  for (const { path, lines, pen } of strokesOf(drawing, style)) {
    const broad = Math.max(pen.width * pixels, style.thinnest);
    context.strokeStyle = screened(pen.colour, pen.screen);
    context.lineWidth = broad / scale;
    // Round ends show only on broad lines; the end of a dash is square, or round ends would eat up the gap.
    context.lineCap = broad > 1.5 && !pen.pattern.length ? "round" : "butt";
    if (pen.pattern.length)
      dashed(
        context,
        lines(),
        pen.pattern.map((length) => (length * pen.width) / ratio),
      );
    else context.stroke(path);
  }
  return createImageBitmap(canvas, 0, 0, width, height);
}

/** Lines of a pattern, which is fitted to each of their stretches. */
function dashed(
  context: OffscreenCanvasRenderingContext2D,
  lines: Iterable<readonly (readonly [number, number])[]>,
  pattern: readonly number[],
) {
  for (const line of lines)
    for (const stretch of stretches(line)) {
      context.setLineDash(fittedTo(pattern, lengthOf(stretch)));
      context.beginPath();
      for (const [u = 0, v = 0] of stretch) context.lineTo(u, v);
      context.stroke();
    }
  context.setLineDash([]);
}
