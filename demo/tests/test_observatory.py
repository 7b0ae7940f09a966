"""The demo building is a valid file of a building that one could believe, and its drawings need no eraser."""

import logging
import tempfile
from pathlib import Path
from unittest import TestCase

import ifcopenshell
import ifcopenshell.validate
import numpy as np
import shapely

from demo.building import write_observatory
from demo.measures import EAVES, LENGTH, WIDTH
from drafting.building.comparison import changes_between
from drafting.building.reading import read_building
from drafting.linework.engine import draw
from drafting.linework.tolerances import SHORTEST
from drafting.tests.scenes import lines_of, total_length
from drafting.views.notation import parse_view

VIEWS = (
    "plan:0", "plan:1", "plan:2", "roof", "elevation:north", "elevation:south", "elevation:east",
    "elevation:west",
    "section:-9500,3300,17500,3300", "section:6000,-8500,6000,12500", "axonometric:se", "axonometric:nw",
)  # fmt: skip


class ObservatoryTests(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        folder = tempfile.TemporaryDirectory()
        cls.addClassCleanup(folder.cleanup)
        cls.path = Path(folder.name) / "observatory.ifc"
        write_observatory(str(cls.path))
        cls.building = read_building(cls.path)

    def test_the_file_is_valid_ifc4(self):
        log = ifcopenshell.validate.json_logger()
        ifcopenshell.validate.validate(ifcopenshell.open(str(self.path)), log)
        self.assertEqual(log.statements, [])

    def test_the_same_script_writes_the_same_file(self):
        again = self.path.with_name("again.ifc")
        write_observatory(str(again))
        self.assertEqual(again.read_bytes(), self.path.read_bytes())

    def test_its_revision_differs_by_what_it_says(self):
        path = self.path.with_name("revised.ifc")
        write_observatory(str(path), revised=True)
        revised = read_building(path)
        changes = changes_between(self.building, revised)
        known = {e.id: e.name for building in (self.building, revised) for e in building.elements}
        names = {kind: sorted(known[i] for i in ids) for kind, ids in changes.as_dict().items()}
        self.assertEqual(names["added"], ["Map chest"])
        self.assertEqual(names["removed"], ["Deck bench"])
        self.assertEqual(names["moved"], ["D04", "Partition 1"])
        self.assertEqual(names["reshaped"], ["South wall", "W02"])

    def test_it_has_the_elements_of_a_building(self):
        self.assertTrue(200 <= len(self.building.elements) <= 400)
        self.assertEqual([s.name for s in self.building.storeys], ["Ground floor", "Upper floor", "Lookout"])
        self.assertEqual(self.building.warnings, ())
        classes = self.building.class_counts()
        for wanted in (
            "IfcWall",
            "IfcSlab",
            "IfcRoof",
            "IfcDoor",
            "IfcWindow",
            "IfcStairFlight",
            "IfcRailing",
        ):
            self.assertIn(wanted, classes)

    def test_its_ground_is_dug_out_for_what_stands_in_it(self):
        ground = next(i for i, e in enumerate(self.building.elements) if e.name == "Ground")
        corners = self.building.vertices[self.building.triangles[self.building.triangle_element == ground]]
        inside = (
            (corners[:, :, 2] > -550) & (np.abs(corners[:, :, 0] - 5000) < 3500) & (corners[:, :, 1] < -1000)
        )
        self.assertFalse(inside.any())

    def test_no_view_inks_anything_twice_or_leaves_a_speck(self):
        logging.disable(logging.NOTSET)
        for text in VIEWS:
            with self.subTest(text):
                linework = draw(self.building, parse_view(text))
                ink = lines_of(linework)
                self.assertLess(total_length(linework) - ink.length, 0.002 * ink.length)
                ends = shapely.union_all(
                    [shapely.Point(p[:2]) for x in linework.lines for p in (x.points[0], x.points[-1])]
                )
                for line in linework.lines:
                    shape = shapely.LineString(line.points[:, :2])
                    if shape.length < SHORTEST:
                        others = shapely.difference(
                            ends, shapely.MultiPoint(line.points[[0, -1], :2]).buffer(0.02)
                        )
                        self.assertTrue(shapely.dwithin(ink, shape, 0.02) and not others.is_empty)

    def test_a_wall_of_known_length_has_it_in_plan_and_elevation(self):
        plan = lines_of(draw(self.building, parse_view("plan:0")), role="cut")
        faces = [shapely.LineString([(0, WIDTH), (LENGTH, WIDTH)]), shapely.LineString([(0, 0), (0, 1400)])]
        for face in faces:
            self.assertAlmostEqual(plan.intersection(face.buffer(0.01)).length, face.length, delta=0.1)
        east = lines_of(draw(self.building, parse_view("elevation:east")))
        self.assertLess(east.distance(shapely.Point(0, EAVES)), 0.1)

    def test_a_round_window_shows_no_facets(self):
        south = draw(self.building, parse_view("elevation:south"))
        name = next(e.id for e in self.building.elements if e.name == "W41 round")
        radial = shapely.LineString([(-2100, 4500), (-2100 + 700, 4500 + 60)])
        crossings = lines_of(south, element=name).intersection(radial)
        self.assertLessEqual(shapely.get_num_geometries(crossings), 2)
