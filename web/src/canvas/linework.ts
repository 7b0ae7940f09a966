/**
 * Linework as the server has it (docs/linework-format.md), made ready to stroke at any scale. It lives in the
 * painter's own thread.
 */
import type { Region } from "./hatching";
import { ROLES } from "./penColours";

interface Header {
  elements: string[];
  layers: string[];
  materials: string[];
  classes: string[];
  /** Absent in drawings from before it was kept. */
  made_of?: string[];
  arrays: [name: string, form: keyof typeof FORMS, count: number][];
}
const FORMS = { "<f8": Float64Array, "<f4": Float32Array, "<u4": Uint32Array, "<i1": Int8Array } as const;
const MAGIC = "DFL1";

/** Polylines laid end to end: u and v by turns, and where each begins; real mm. */
export interface Polylines {
  points: ArrayLike<number>;
  starts: ArrayLike<number>;
}

/** What of a drawing has one pen: as one path, and which lines they are. */
export interface Group {
  path: Path2D;
  lines: number[];
}

export interface Linework {
  lines: Polylines;
  /** For each line role a group for each layer. */
  roles: Map<string, Map<string, Group>>;
  /** What is cut. */
  regions: Region[];
  /** The id of the element that each line is of. */
  elementOf: (line: number) => string;
  /** Whether a line is an edge of its element that is seen; not a symbol, and not hidden. */
  isEdge: (line: number) => boolean;
  roleOf: (line: number) => string;
  layerOf: (line: number) => string;
  /** The class of the element that a line is of, such as IfcDoor. */
  classOf: (line: number) => string;
  /** Its material. */
  madeOf: (line: number) => string;
}

/** Roles of lines that annotation is not attached to; the same as the core has. */
const NOT_EDGES: readonly string[] = ["hidden", "overhead", "symbol"];

/** A file of linework, unpacked. */
export function unpack(file: ArrayBuffer) {
  if (new TextDecoder().decode(new Uint8Array(file, 0, 4)) !== MAGIC)
    throw new Error("The server sent no linework.");
  const size = new DataView(file).getUint32(4, true);
  const header = JSON.parse(new TextDecoder().decode(new Uint8Array(file, 8, size))) as Header;
  let at = 8 + size;
  const arrays: Record<string, ArrayLike<number>> = {};
  for (const [name, form, count] of header.arrays) {
    arrays[name] = new FORMS[form](file, at, count);
    at += count * FORMS[form].BYTES_PER_ELEMENT;
  }
  return { ...header, arrays };
}

export async function fetchLinework(key: string): Promise<Linework> {
  const response = await fetch(`/api/linework/${key}/`);
  if (!response.ok) throw new Error(`The linework could not be fetched (${response.status}).`);
  const { arrays, elements, layers, materials, classes, made_of = [] } = unpack(await response.arrayBuffer());
  const figures = (name: string) => arrays[name] ?? [];
  const lines: Polylines = { points: figures("points"), starts: figures("starts") };
  const [role, layer, element] = [figures("role"), figures("line_layer"), figures("line_element")];
  const roleOf = (line: number): string => ROLES[role[line] ?? 0] ?? "edge";
  const layerOf = (line: number) => layers[layer[line] ?? 0] ?? "";
  const roles: Linework["roles"] = new Map();
  for (let k = 0; k < role.length; k++) {
    let ofRole = roles.get(roleOf(k));
    if (!ofRole) roles.set(roleOf(k), (ofRole = new Map()));
    let group = ofRole.get(layerOf(k));
    if (!group) ofRole.set(layerOf(k), (group = { path: new Path2D(), lines: [] }));
    trace(group.path, lines, k);
    group.lines.push(k);
  }
  const rings: Polylines = { points: figures("ring_points"), starts: figures("ring_starts") };
  const [starts, materialOf] = [figures("region_starts"), figures("region_material")];
  const regionElement = figures("region_element");
  const regions = Array.from({ length: materialOf.length }, (_, k) => ({
    ...regionOf(materials[materialOf[k] ?? 0] ?? "", rings, starts[k] ?? 0, starts[k + 1] ?? 0),
    element: elements[regionElement[k] ?? 0] ?? "",
  }));
  return {
    lines,
    roles,
    regions,
    elementOf: (line) => elements[element[line] ?? 0] ?? "",
    isEdge: (line) => !NOT_EDGES.includes(roleOf(line)),
    roleOf,
    layerOf,
    classOf: (line) => classes[element[line] ?? 0] ?? "",
    madeOf: (line) => made_of[element[line] ?? 0] ?? "",
  };
}

function regionOf(material: string, rings: Polylines, from: number, to: number): Omit<Region, "element"> {
  const path = new Path2D();
  for (let ring = from; ring < to; ring++) {
    trace(path, rings, ring);
    path.closePath();
  }
  const outline = pointsOf(rings, from);
  const [us, vs] = [outline.map((p) => p[0]), outline.map((p) => p[1])];
  return { material, path, box: [Math.min(...us), Math.min(...vs), Math.max(...us), Math.max(...vs)] };
}

/** The points of one polyline. */
export function pointsOf({ points, starts }: Polylines, line: number): [number, number][] {
  const [from, to] = [starts[line] ?? 0, starts[line + 1] ?? 0];
  return Array.from({ length: to - from }, (_, k) => [
    points[2 * (from + k)] ?? 0,
    points[2 * (from + k) + 1] ?? 0,
  ]);
}

function trace(path: Path2D, { points, starts }: Polylines, line: number) {
  const [from, to] = [starts[line] ?? 0, starts[line + 1] ?? 0];
  for (let k = from; k < to; k++) {
    const [u, v] = [points[2 * k] ?? 0, points[2 * k + 1] ?? 0];
    if (k > from) path.lineTo(u, v);
    else path.moveTo(u, v);
  }
}

/** The element whose line passes nearest to a point of the view, and the middle of its lines; real mm. */
export function elementAt(
  { lines, elementOf }: Pick<Linework, "lines" | "elementOf">,
  [u, v]: readonly [number, number],
  reach: number,
): { element: string; middle: [number, number] } | null {
  let [best, nearest] = ["", reach];
  const { points, starts } = lines;
  for (let line = 0; line + 1 < starts.length; line++)
    for (let k = (starts[line] ?? 0) + 1; k < (starts[line + 1] ?? 0); k++) {
      const [ax, ay] = [points[2 * k - 2] ?? 0, points[2 * k - 1] ?? 0];
      const [dx, dy] = [(points[2 * k] ?? 0) - ax, (points[2 * k + 1] ?? 0) - ay];
      const share = Math.min(
        1,
        Math.max(0, ((u - ax) * dx + (v - ay) * dy) / Math.max(dx * dx + dy * dy, 1e-9)),
      );
      const far = Math.hypot(u - ax - dx * share, v - ay - dy * share);
      if (far < nearest) [best, nearest] = [elementOf(line), far];
    }
  if (!best) return null;
  let [u0, v0, u1, v1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let line = 0; line + 1 < starts.length; line++)
    if (elementOf(line) === best)
      for (const [x, y] of pointsOf(lines, line)) {
        [u0, v0] = [Math.min(u0, x), Math.min(v0, y)];
        [u1, v1] = [Math.max(u1, x), Math.max(v1, y)];
      }
  return { element: best, middle: [(u0 + u1) / 2, (v0 + v1) / 2] };
}
