/** How a building is looked at in 3D, in the figures of a view. Lengths in mm, z up. */
import { Vector3, type Box3 } from "three";

/** Field of view of the perspective, degrees, up and down. */
export const ANGLE = 40;

export type Sight =
  | { bearing: number; altitude: number }
  | { eye: [number, number, number]; target: [number, number, number]; angle: number };

const degrees = (radians: number) => (radians * 180) / Math.PI;

/** Of parallel rays: from where one looks, `way` being towards the eye. */
export function axonometricSight(way: Vector3): Sight {
  const bearing = (degrees(Math.atan2(way.x, way.y)) + 360) % 360;
  const altitude = degrees(Math.atan2(way.z, Math.hypot(way.x, way.y)));
  return {
    bearing: Math.round(bearing * 10) / 10,
    altitude: Math.round(Math.min(89, Math.max(-89, altitude)) * 10) / 10,
  };
}

/** Of an eye; `origin` is the point of the model that places are measured from. */
export function perspectiveSight(
  eye: Vector3,
  target: Vector3,
  origin: readonly number[],
  aspect: number,
): Sight {
  const real = (v: Vector3) =>
    v.toArray().map((x, k) => Math.round(x + (origin[k] ?? 0))) as [number, number, number];
  // The core's field of view goes across; the picture here is wider than it is high.
  const across = 2 * Math.atan(Math.tan((ANGLE * Math.PI) / 360) * Math.max(aspect, 1));
  return { eye: real(eye), target: real(target), angle: Math.round(degrees(across)) };
}

/**
 * Where one stands who looks straight at an upright face: degrees clockwise from north; null for one that
 * leans.
 */
export function bearingOf(normal: Vector3 | undefined): number | null {
  if (!normal || Math.abs(normal.z) > 0.02) return null;
  return Math.round((((Math.atan2(normal.x, normal.y) * 180) / Math.PI + 360) % 360) * 100) / 100;
}

/** Half the height of a picture that holds all of a box about its middle, looked at from a direction. */
export function halfHeight(box: Box3, middle: Vector3, aspect: number, from: Vector3): number {
  const right = new Vector3(0, 0, 1).cross(from).normalize();
  const up = from.clone().cross(right);
  let [wide, high] = [1, 1];
  for (const x of [box.min.x, box.max.x])
    for (const y of [box.min.y, box.max.y])
      for (const z of [box.min.z, box.max.z]) {
        const away = new Vector3(x, y, z).sub(middle);
        wide = Math.max(wide, Math.abs(away.dot(right)));
        high = Math.max(high, Math.abs(away.dot(up)));
      }
  return Math.max(high, wide / aspect);
}
