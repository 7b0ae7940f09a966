/** What lines of a drawing are stroked with: by role and layer, and by what of them is drawn otherwise. */
import { pointsOf, type Linework } from "./linework";
import { ROLES, stated, type PaperPen } from "./penColours";
import type { Style } from "./pictures";
import { OWN, divided } from "./redrawn";

type Points = readonly (readonly [number, number])[];

/** Lines of one pen: as one path, and line by line. */
interface Lines {
  path: Path2D;
  lines: () => Iterable<Points>;
}
export interface Stroked extends Lines {
  pen: PaperPen;
}
/** Lines of one role and layer that are redrawn alike, by the number of what does; OWN for as they are. */
interface Part extends Lines {
  role: string;
  layer: string;
  by: number;
}

/** So many ways of redrawing one drawing are kept ready: as many as it has viewports that differ. */
const MAX_KEPT = 4;
const kept = new WeakMap<Linework, Map<string, Part[]>>();
const rankOf = (role: string) => ROLES.indexOf(role as (typeof ROLES)[number]);

/** The lines of a drawing by their pens, the narrowest first. */
export function strokesOf(drawing: Linework, { pens, layers, redrawn }: Style): Stroked[] {
  return partsOf(drawing, redrawn)
    .flatMap(({ role, layer, by, path, lines }) => {
      const change = by === OWN ? undefined : redrawn[by];
      const own = pens[change?.role ?? role];
      if (!own || change?.hidden) return [];
      const pen = { ...own, ...stated(layers[layer]), ...stated(change?.change) };
      return [{ path, lines, pen, rank: rankOf(role) }];
    })
    .sort((a, b) => a.pen.width - b.pen.width || b.rank - a.rank);
}

function partsOf(drawing: Linework, redrawn: Style["redrawn"]): Part[] {
  const ready = kept.get(drawing) ?? new Map<string, Part[]>();
  kept.set(drawing, ready);
  // Which lines are redrawn decides; how they are drawn does not.
  const key = JSON.stringify(
    redrawn.map(({ whole, parts, added, role, layer }) => [whole, parts, added, role, layer]),
  );
  let found = ready.get(key);
  if (!found) {
    found = redrawn.length ? dividedParts(drawing, redrawn) : wholeParts(drawing);
    ready.set(key, found);
    for (const oldest of ready.keys()) if (ready.size > MAX_KEPT) ready.delete(oldest);
  }
  return found;
}

function wholeParts({ lines, roles }: Linework): Part[] {
  return [...roles].flatMap(([role, ofRole]) =>
    [...ofRole].map(([layer, group]) => ({
      role,
      layer,
      by: OWN,
      path: group.path,
      lines: () => group.lines.map((line) => pointsOf(lines, line)),
    })),
  );
}

function dividedParts(drawing: Linework, redrawn: Style["redrawn"]): Part[] {
  const { lines } = drawing;
  const found = new Map<string, { role: string; layer: string; by: number; own: Points[] }>();
  const gather = (role: string, layer: string, by: number, points: Points) => {
    const key = `${role}|${by}|${layer}`;
    const part = found.get(key);
    if (part) part.own.push(points);
    else found.set(key, { role, layer, by, own: [points] });
  };
  const { by, pieces } = divided(lines, redrawn);
  const untouched: Part[] = [];
  for (const part of wholeParts(drawing)) {
    const numbers = drawing.roles.get(part.role)?.get(part.layer)?.lines ?? [];
    if (numbers.every((line) => by[line] === OWN)) untouched.push(part);
    else
      for (const line of numbers) {
        const what = by[line] ?? OWN;
        if (what >= OWN) gather(part.role, part.layer, what, pointsOf(lines, line));
      }
  }
  for (const { line, points, by: what } of pieces)
    gather(drawing.roleOf(line), drawing.layerOf(line), what, points);
  redrawn.forEach(({ added, role, layer }, k) => {
    for (const ends of added) gather(role ?? "edge", layer, k, ends);
  });
  const touched = [...found.values()].map(({ own, ...part }) => ({
    ...part,
    path: pathOf(own),
    lines: () => own,
  }));
  return [...untouched, ...touched];
}

function pathOf(lines: Iterable<Points>): Path2D {
  const path = new Path2D();
  for (const points of lines) points.forEach(([u, v], k) => (k ? path.lineTo(u, v) : path.moveTo(u, v)));
  return path;
}
