/** What the board works out as the core does, on the cases that the core is tested with too (contract/). */
import { describe, expect, it } from "vitest";
import materials from "../../contract/materials.json";
import patterns from "../../contract/patterns.json";
import pens from "../../contract/pens.json";
import placement from "../../contract/placement.json";
import centreCases from "../../contract/centres.json";
import redrawnCases from "../../contract/redrawn.json";
import references from "../../contract/reference-lines.json";
import roles from "../../contract/roles.json";
import screening from "../../contract/screening.json";
import stretchCases from "../../contract/stretches.json";
import layouts from "../../contract/template-layout.json";
import usual from "../../contract/usual-columns.json";
import type { Part, ScheduleSpec } from "../src/api/client";
import { placementOf, type Geometry } from "../src/canvas/geometry";
import { cutOf, type Cut } from "../src/canvas/hatching";
import { fittedTo, stretches } from "../src/canvas/patterns";
import { ROLES, stated, screened } from "../src/canvas/penColours";
import { divided } from "../src/canvas/redrawn";
import { referenceLines } from "../src/canvas/referenceLines";
import { centresOf } from "../src/canvas/roundLines";
import { endsOf } from "../src/canvas/templateParts";
import { usualColumns } from "../src/features/sheets/annotate/pieceChoices";

const close = (found: readonly number[], wanted: readonly number[]) => {
  expect(found.length).toBe(wanted.length);
  found.forEach((figure, k) => expect(figure).toBeCloseTo(wanted[k] ?? NaN, 6));
};

describe("the board agrees with the core", () => {
  it("on line roles", () => expect([...ROLES]).toEqual(roles));

  it.each(redrawnCases)("on the pieces of what is drawn otherwise: $by", ({ lines, redrawn, by, pieces }) => {
    const starts = lines.reduce((all, line) => [...all, (all.at(-1) ?? 0) + line.length], [0]);
    const found = divided({ points: lines.flat(2), starts }, redrawn as never);
    expect([...found.by]).toEqual(by);
    expect(found.pieces).toEqual(pieces);
  });

  it.each(placement)("on where a drawing lies: $viewport", ({ viewport, place, corners }) => {
    const found = placementOf(viewport as Geometry);
    close(found.place, place);
    corners.forEach((corner, k) => close(found.clip[k] ?? [], corner));
  });

  it.each(references)("on the grid lines and levels seen along $axes", ({ axes, grid, storeys, lines }) => {
    const found = referenceLines(axes, { grid: grid as never, storeys });
    expect(found.map(({ id }) => id).sort()).toEqual(Object.keys(lines).sort());
    for (const { id, ends } of found)
      ends.forEach((end, k) => close(end, (lines as Record<string, number[][]>)[id]?.[k] ?? []));
  });

  it.each(usual)("on the usual columns of $of", ({ of, columns }) =>
    expect(usualColumns(of as ScheduleSpec["of"])).toEqual(columns),
  );

  it.each(patterns)("on $pattern fitted to $length", ({ pattern, length, fitted }) =>
    close(fittedTo(pattern, length), fitted),
  );

  it.each(stretchCases)("on the stretches of $points", ({ points, closed, stretches: wanted }) =>
    expect(stretches(points, closed)).toEqual(wanted),
  );

  it.each(screening)("on $colour at $screen %", ({ colour, screen, ink }) =>
    expect(screened(colour, screen)).toBe(ink),
  );

  it.each(pens)("on a pen changed by $change", ({ pen, change, changed }) =>
    expect({ ...pen, ...stated(change as never) }).toEqual(changed),
  );

  it.each(materials)("on which row fills $material", ({ rows, material, row }) => {
    const cuts = rows.map((match) => ({ match }) as Cut);
    const found = cutOf(cuts, material);
    expect(found ? cuts.indexOf(found) : null).toBe(row);
  });

  it.each(layouts)(
    "on where the parts of a template lie on $paper",
    ({ frame: [x = 0, y = 0, width = 0, height = 0, shrink = 1], template, ends }) => {
      template.parts.forEach((part, k) =>
        close(endsOf(part as Part, { frame: { x, y, width, height }, shrink }), ends[k] ?? []),
      );
    },
  );
});

it("the centres of circles and arcs are found as the core finds them", () => {
  for (const { line, centres } of centreCases) {
    const found = centresOf(line as unknown as [number, number][]);
    expect(found.length).toBe(centres.length);
    found.forEach((at, k) => at.forEach((v, axis) => expect(v).toBeCloseTo(centres[k]?.[axis] ?? NaN, 2)));
  }
});
