/** A canvas as it was painted, to be laid down again while little of it changes. */
import type { Camera } from "./geometry";

/** What takes longer to paint, in milliseconds, is laid down as it was while the camera moves. */
export const SLOW = 12;
/** How long the camera has rested before everything is painted anew, milliseconds. */
export const REST = 110;

export class Still {
  private readonly canvas: HTMLCanvasElement;

  /** What `painter` paints, known again by `key`: whatever it was painted from. */
  constructor(
    private readonly key: readonly unknown[],
    readonly camera: Camera,
    like: HTMLCanvasElement,
    painter: (context: CanvasRenderingContext2D) => boolean,
    readonly complete = true,
  ) {
    this.canvas = document.createElement("canvas");
    this.canvas.width = like.width;
    this.canvas.height = like.height;
    const context = this.canvas.getContext("2d");
    if (context) this.complete = painter(context);
  }

  /** Whether it was painted from the same. */
  isOf(key: readonly unknown[]): boolean {
    return key.length === this.key.length && key.every((part, k) => Object.is(part, this.key[k]));
  }

  /** Lay it down where a camera has it now. */
  lay(context: CanvasRenderingContext2D, camera: Camera, dpr: number) {
    const by = camera.scale / this.camera.scale;
    const [x, y] = [camera.x - this.camera.x * by, camera.y - this.camera.y * by];
    context.save();
    context.setTransform(by, 0, 0, by, x * dpr, y * dpr);
    context.drawImage(this.canvas, 0, 0);
    context.restore();
  }
}
