/** The table, the paper and the rulers along the paper's own edges, in millimetres. */
import { colours } from "../theme/theme";
import { toScreen, type Camera } from "./geometry";

const BREADTH = 15;

/** The step between figures that leaves them readable, in mm. */
function stepFor(scale: number): number {
  return [5, 10, 20, 50, 100, 200, 500].find((step) => step * scale >= 42) ?? 1000;
}

export function paintTable(
  context: CanvasRenderingContext2D,
  paper: { width: number; height: number },
  camera: Camera,
) {
  const [left, bottom] = toScreen(camera, 0, 0);
  const [right, top] = toScreen(camera, paper.width, paper.height);
  context.fillStyle = colours.sand;
  context.fillRect(0, 0, context.canvas.width, context.canvas.height);
  // A soft shadow in a few steps, and only beside the paper: a blurred one, or one under all of it, costs
  // more than all the rest of a frame.
  context.fillStyle = "rgba(74, 60, 34, 0.045)";
  for (let k = 6; k > 0; k--) {
    const ring = new Path2D();
    ring.rect(left - k, top - k + 3, right - left + 2 * k, bottom - top + 2 * k);
    ring.rect(left, top, right - left, bottom - top);
    context.fill(ring, "evenodd");
  }
  context.fillStyle = colours.paper;
  context.fillRect(left, top, right - left, bottom - top);
  const gap = 7;
  const step = stepFor(camera.scale);
  const fine = step / 5;
  context.save();
  context.strokeStyle = colours.sandShade;
  context.fillStyle = colours.inkSoft;
  context.lineWidth = 1;
  context.font = '10px "Hanken Grotesk Variable", sans-serif';
  context.textAlign = "center";
  context.beginPath();
  for (let k = 0; k * fine <= paper.width + 1e-6; k++) {
    const x = Math.round(toScreen(camera, k * fine, 0)[0]) + 0.5;
    const main = k % 5 === 0;
    context.moveTo(x, top - gap);
    context.lineTo(x, top - gap - (main ? 6 : 3));
    if (main) context.fillText(String(k * fine), x, top - gap - 8);
  }
  for (let k = 0; k * fine <= paper.height + 1e-6; k++) {
    const y = Math.round(toScreen(camera, 0, k * fine)[1]) + 0.5;
    const main = k % 5 === 0;
    context.moveTo(left - gap, y);
    context.lineTo(left - gap - (main ? 6 : 3), y);
    if (main) {
      context.save();
      context.translate(left - gap - BREADTH + 6, y);
      context.rotate(-Math.PI / 2);
      context.fillText(String(k * fine), 0, 0);
      context.restore();
    }
  }
  context.moveTo(left, top - gap + 0.5);
  context.lineTo(right, top - gap + 0.5);
  context.moveTo(left - gap + 0.5, top);
  context.lineTo(left - gap + 0.5, bottom);
  context.stroke();
  context.restore();
}
