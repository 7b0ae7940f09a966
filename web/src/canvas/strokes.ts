/** What lines of a drawing are stroked with: by role and layer, and by what of them is drawn otherwise. */
import { pointsOf, type Linework } from "./linework";
import { ROLES, stated, type PaperPen } from "./penColours";
import type { Style } from "./pictures";
import { DIVIDED, OWN, divided } from "./redrawn";

type Points = readonly (readonly [number, number])[];

/** Lines of one pen: as one path, and line by line. */
export interface Stroked {
  path: Path2D;
  lines: () => Iterable<Points>;
  pen: PaperPen;
}

const rankOf = (role: string) => ROLES.indexOf(role as (typeof ROLES)[number]);

/** The lines of a drawing by their pens, the narrowest first. */
export function strokesOf(drawing: Linework, { pens, layers, redrawn }: Style): Stroked[] {
  const { lines, roles } = drawing;
  const found: (Stroked & { rank: number })[] = [];
  const { by, pieces } = redrawn.length ? divided(lines, redrawn) : { by: null, pieces: [] };
  const otherwise = new Map<string, { role: string; layer: string; by: number; lines: Points[] }>();
  const gather = (role: string, layer: string, what: number, points: Points) => {
    const key = `${role}|${what}|${layer}`;
    const group = otherwise.get(key);
    if (group) group.lines.push(points);
    else otherwise.set(key, { role, layer, by: what, lines: [points] });
  };
  for (const [role, ofRole] of roles)
    for (const [layer, group] of ofRole) {
      const own = by ? group.lines.filter((line) => by[line] === OWN) : group.lines;
      for (const line of by && own.length < group.lines.length ? group.lines : [])
        if ((by?.[line] ?? OWN) >= 0) gather(role, layer, by?.[line] ?? OWN, pointsOf(lines, line));
      const pen = pens[role];
      if (!pen || !own.length) continue;
      found.push({
        path: own.length < group.lines.length ? pathOf(own.map((line) => pointsOf(lines, line))) : group.path,
        lines: () => own.map((line) => pointsOf(lines, line)),
        pen: { ...pen, ...stated(layers[layer]) },
        rank: rankOf(role),
      });
    }
  for (const { line, points, by: what } of pieces)
    gather(drawing.roleOf(line), drawing.layerOf(line), what, points);
  redrawn.forEach(({ added, role, layer }, k) => {
    for (const ends of added) gather(role ?? "edge", layer, k, ends);
  });
  for (const group of otherwise.values()) {
    const change = group.by === OWN || group.by === DIVIDED ? undefined : redrawn[group.by];
    const pen = pens[change?.role ?? group.role];
    if (!pen || change?.hidden) continue;
    found.push({
      path: pathOf(group.lines),
      lines: () => group.lines,
      pen: { ...pen, ...stated(layers[group.layer]), ...stated(change?.change) },
      rank: rankOf(group.role),
    });
  }
  return found.sort((a, b) => a.pen.width - b.pen.width || b.rank - a.rank);
}

function pathOf(lines: Iterable<Points>): Path2D {
  const path = new Path2D();
  for (const points of lines) points.forEach(([u, v], k) => (k ? path.lineTo(u, v) : path.moveTo(u, v)));
  return path;
}
