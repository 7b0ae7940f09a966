/** Moving and zooming a sheet by wheel, touch and keys, and drawing a mark on it. */
import { zoomed, type Camera } from "../../canvas/geometry";

interface Finger {
  x: number;
  y: number;
}

/** The camera after two fingers have moved: what lay under each still lies under it. */
export function pinched(
  camera: Camera,
  before: readonly [Finger, Finger],
  now: readonly [Finger, Finger],
): Camera {
  const apart = ([a, b]: readonly [Finger, Finger]) => Math.hypot(a.x - b.x, a.y - b.y) || 1;
  const middle = ([a, b]: readonly [Finger, Finger]) => [(a.x + b.x) / 2, (a.y + b.y) / 2] as const;
  const [x, y] = middle(before);
  const [u, v] = middle(now);
  const larger = zoomed(camera, apart(now) / apart(before), x, y);
  return { ...larger, x: larger.x + u - x, y: larger.y + v - y };
}

/** What stands at the foot of the space, over the sheet; pixels. */
const FOOT = 74;

/** A sheet within its space: as large as it fits, clear of what stands at the foot. */
export function whole(
  sheet: { width: number; height: number },
  space: { width: number; height: number },
): Camera {
  const room = Math.min(16, space.width / 30);
  const height = space.height - FOOT;
  const scale = Math.min((space.width - 2 * room) / sheet.width, (height - room) / sheet.height);
  return {
    scale: Math.max(0.1, scale),
    x: (space.width - sheet.width * scale) / 2,
    y: (height + room + sheet.height * scale) / 2,
  };
}

/** The camera that shows a place in the middle, no smaller than it is now. */
export function lookingAt(
  camera: Camera,
  [x, y]: readonly [number, number],
  space: { width: number; height: number },
  least: number,
): Camera {
  const scale = Math.max(camera.scale, least);
  return { scale, x: space.width / 2 - x * scale, y: space.height / 2 + y * scale };
}

const STEP = 60;

/** What a key does to the camera; null for one that does nothing. */
export function keyed(key: string, camera: Camera, space: { width: number; height: number }): Camera | null {
  const [x, y] = [space.width / 2, space.height / 2];
  switch (key) {
    case "ArrowLeft":
      return { ...camera, x: camera.x + STEP };
    case "ArrowRight":
      return { ...camera, x: camera.x - STEP };
    case "ArrowUp":
      return { ...camera, y: camera.y + STEP };
    case "ArrowDown":
      return { ...camera, y: camera.y - STEP };
    case "+":
    case "=":
      return zoomed(camera, 1.4, x, y);
    case "-":
      return zoomed(camera, 1 / 1.4, x, y);
    default:
      return null;
  }
}
