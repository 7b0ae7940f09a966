/** Linework, fetched once under its key and made ready to stroke at any scale. It lives in the painter's own thread. */
import type { Region } from "./hatching";

interface LineworkFile {
  extents: [number, number, number, number] | null;
  lines: { role: string; layer: string; element: string; points: [number, number, number][] }[];
  regions: { material: string; rings: [number, number][][] }[];
}

/** What of a drawing has one pen: as one path, and line by line, real mm. */
export interface Group {
  path: Path2D;
  lines: [number, number, number][][];
}

export interface Linework {
  /** For each line role a group for each layer. */
  roles: Map<string, Map<string, Group>>;
  /** What is cut. */
  regions: Region[];
  lines: LineworkFile["lines"];
}

export async function fetchLinework(key: string): Promise<Linework> {
  const response = await fetch(`/api/linework/${key}/`);
  if (!response.ok) throw new Error(`The linework could not be fetched (${response.status}).`);
  const file = (await response.json()) as LineworkFile;
  const roles: Linework["roles"] = new Map();
  for (const line of file.lines) {
    let layers = roles.get(line.role);
    if (!layers) roles.set(line.role, (layers = new Map()));
    let group = layers.get(line.layer);
    if (!group) layers.set(line.layer, (group = { path: new Path2D(), lines: [] }));
    trace(group.path, line.points);
    group.lines.push(line.points);
  }
  return { roles, regions: file.regions.map(({ material, rings }) => regionOf(material, rings)), lines: file.lines };
}

function regionOf(material: string, rings: [number, number][][]): Region {
  const path = new Path2D();
  for (const ring of rings) {
    trace(path, ring);
    path.closePath();
  }
  const outline = rings[0] ?? [];
  const [us, vs] = [outline.map((p) => p[0]), outline.map((p) => p[1])];
  return { material, path, box: [Math.min(...us), Math.min(...vs), Math.max(...us), Math.max(...vs)] };
}

function trace(path: Path2D, points: readonly (readonly number[])[]) {
  points.forEach((p, k) => {
    const [u = 0, v = 0] = p;
    if (k) path.lineTo(u, v);
    else path.moveTo(u, v);
  });
}

/** The element whose line passes nearest to a point of the view, and the middle of its lines; real mm. */
export function elementAt({ lines }: Linework, [u, v]: readonly [number, number], reach: number): { element: string; middle: [number, number] } | null {
  let [best, nearest] = ["", reach];
  for (const { element, points } of lines)
    for (let k = 1; k < points.length; k++) {
      const [ax = 0, ay = 0] = points[k - 1] ?? [];
      const [bx = 0, by = 0] = points[k] ?? [];
      const [dx, dy] = [bx - ax, by - ay];
      const share = Math.min(1, Math.max(0, ((u - ax) * dx + (v - ay) * dy) / Math.max(dx * dx + dy * dy, 1e-9)));
      const far = Math.hypot(u - ax - dx * share, v - ay - dy * share);
      if (far < nearest) [best, nearest] = [element, far];
    }
  if (!best) return null;
  let [u0, v0, u1, v1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { element, points } of lines)
    if (element === best)
      for (const [x, y] of points) {
        [u0, v0] = [Math.min(u0, x), Math.min(v0, y)];
        [u1, v1] = [Math.max(u1, x), Math.max(v1, y)];
      }
  return { element: best, middle: [(u0 + u1) / 2, (v0 + v1) / 2] };
}
