"""What the core and the board both work out, on cases that both are tested with (contract/)."""

from __future__ import annotations

import json
from dataclasses import asdict
from fractions import Fraction
from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np

from drafting.annotation.reference_lines import reference_lines
from drafting.annotation.round_lines import centres
from drafting.annotation.schedules import LISTED, usual_columns
from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.geometry.polylines import Polylines
from drafting.linework.model import ROLES
from drafting.schema import parse
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.template import Blank, parse_template
from drafting.sheets.viewport import Viewport
from drafting.styles.hatches import HATCHES
from drafting.styles.patterns import fitted_to, stretches
from drafting.styles.pen_table import CutStyle
from drafting.styles.pens import Pen, PenChange, screened
from drafting.styles.redrawn import Redrawn, divided

FOLDER = Path(__file__).parents[2] / "contract"


def cases(name: str) -> Any:
    return json.loads((FOLDER / f"{name}.json").read_text())


class ContractTests(TestCase):
    def test_redrawn(self) -> None:
        for case in cases("redrawn"):
            redrawn = [parse(Redrawn, each, "drawing", SheetError) for each in case["redrawn"]]
            by, pieces = divided(Polylines.of(case["lines"]), redrawn)
            self.assertEqual(by.tolist(), case["by"])
            self.assertEqual(
                [{"line": p.line, "by": p.by, "points": p.points.tolist()} for p in pieces], case["pieces"]
            )

    def test_hatches(self) -> None:
        plain = {
            name: json.loads(json.dumps([asdict(line) for line in lines])) for name, lines in HATCHES.items()
        }
        self.assertEqual(cases("hatches"), plain)

    def test_roles(self) -> None:
        self.assertEqual(cases("roles"), list(ROLES))

    def test_placement(self) -> None:
        for case in cases("placement"):
            given = case["viewport"]
            with self.subTest(given):
                viewport = Viewport(
                    "viewport",
                    "linework",
                    Box(given["x"], given["y"], given["width"], given["height"]),
                    Scale(Fraction(given["ratio"]).limit_denominator(10_000)),
                    (given["centre_u"], given["centre_v"]),
                    turn=given["turn"],
                    shape=given["shape"],
                    corners=tuple(map(tuple, given["corners"])),
                )
                np.testing.assert_allclose(viewport.to_paper(0.0, 0.0), case["place"], atol=1e-6)
                np.testing.assert_allclose(viewport.outline[:4], case["corners"], atol=1e-6)

    def test_reference_lines(self) -> None:
        for case in cases("reference-lines"):
            grid = [(line["name"], *line["ends"]) for line in case["grid"]]
            storeys = [(storey["name"], storey["elevation"]) for storey in case["storeys"]]
            found = reference_lines(grid, storeys, case["axes"])
            self.assertEqual(set(found), set(case["lines"]))
            for name, ends in found.items():
                np.testing.assert_allclose(ends, case["lines"][name], atol=1e-6)

    def test_centres(self) -> None:
        for case in cases("centres"):
            found = list(centres(case["line"]))
            self.assertEqual(len(found), len(case["centres"]))
            np.testing.assert_allclose(
                np.reshape(found, (-1, 2)), np.reshape(case["centres"], (-1, 2)), atol=1e-3
            )

    def test_usual_columns(self) -> None:
        found = [{"of": of, "columns": [asdict(c) for c in usual_columns(of)]} for of in LISTED]
        self.assertEqual(found, cases("usual-columns"))

    def test_patterns(self) -> None:
        for case in cases("patterns"):
            with self.subTest(case):
                np.testing.assert_allclose(fitted_to(tuple(case["pattern"]), case["length"]), case["fitted"])

    def test_stretches(self) -> None:
        for case in cases("stretches"):
            with self.subTest(case):
                parts = [part.tolist() for part in stretches(np.array(case["points"], float), case["closed"])]
                self.assertEqual(parts, case["stretches"])

    def test_screening(self) -> None:
        for case in cases("screening"):
            with self.subTest(case):
                self.assertEqual(screened(case["colour"], case["screen"]), case["ink"])

    def test_pens(self) -> None:
        for case in cases("pens"):
            with self.subTest(case):
                pen, wanted = (parse(Pen, case[name], "pen", ValueError) for name in ("pen", "changed"))
                self.assertEqual(pen.changed(parse(PenChange, case["change"], "pen", ValueError)), wanted)

    def test_materials(self) -> None:
        for case in cases("materials"):
            with self.subTest(case):
                styles = [CutStyle(match) for match in case["rows"]]
                found = next((k for k, style in enumerate(styles) if style.matches(case["material"])), None)
                self.assertEqual(found, case["row"])

    def test_template_layout(self) -> None:
        for case in cases("template-layout"):
            with self.subTest(case):
                blank = Blank(Paper.of(case["paper"]), parse_template(case["template"]))
                np.testing.assert_allclose(
                    [blank.frame.x, blank.frame.y, blank.frame.width, blank.frame.height, blank.shrink],
                    case["frame"],
                )
                for part, ends in zip(blank.template.parts, case["ends"], strict=True):
                    np.testing.assert_allclose(blank.ends_of(part), ends)
