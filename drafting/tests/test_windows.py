"""How windows open: what files say of it, and the lines that elevations show of it."""

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import ifcopenshell
import ifcopenshell.guid
import numpy as np

from drafting.building.axes import Axes
from drafting.building.own_axes import in_axes
from drafting.building.reading import read_building
from drafting.building.store import load_building, save_building
from drafting.building.units import in_unit
from drafting.building.windows import HINGES, PARTITIONS, BuildingWindow, Panel, panels_of
from drafting.linework.engine import draw
from drafting.tests.ifc_files import write_ifc
from drafting.tests.scenes import box, building
from drafting.views.elevation import Elevation
from drafting.views.line_settings import LineSettings
from drafting.views.plan import Plan

WHOLE = (0.0, 1.0, 0.0, 1.0)
#: A window 1.2 m wide and 1 m high in the south side of a house; it opens outward, to the south, and its
#: width runs from east to west: from right to left as seen from outside.
SOUTH = BuildingWindow(
    (2200.0, 0.0, 900.0), (-1.0, 0, 0), (0.0, -1.0, 0), 1200.0, 1000.0, 100.0, (Panel(WHOLE, ("right",)),)
)


def house(window=SOUTH):
    frame = box((1000, 0, 900), (2200, 100, 1900))
    wall = box((-1000, 100, 0), (6000, 400, 3000))
    return replace(building([wall, frame]), windows={1: window})


def opening(made, view):
    lines = [x for x in draw(made, view).lines if x.element == "e1" and x.role in ("symbol", "hidden")]
    return [(x.role, [tuple(map(float, p.round(3))) for p in x.points[:, :2]]) for x in lines]


def from_side(side):
    return Elevation(side, line_settings=LineSettings(opening_windows=True))


class PanelTests(TestCase):
    def test_panels_of_every_division_fill_the_window_once(self):
        for name, places in PARTITIONS.items():
            with self.subTest(name):
                area = sum((x1 - x0) * (z1 - z0) for x0, x1, z0, z1 in places.values())
                self.assertAlmostEqual(area, 1.0)
                panels = panels_of(name, dict.fromkeys(places, "TOPHUNG"))
                self.assertEqual([p.place for p in panels], list(places.values()))

    def test_what_is_fixed_or_unknown_does_not_open(self):
        self.assertEqual(panels_of("SINGLE_PANEL", {"MIDDLE": "FIXEDCASEMENT"}), ())
        self.assertEqual(panels_of("USERDEFINED", {"LEFT": "TOPHUNG", "RIGHT": "TOPHUNG"}), ())
        self.assertEqual(panels_of("DOUBLE_PANEL_VERTICAL", {"TOP": "TOPHUNG"}), ())
        # One panel is the whole window, wherever the file says it stands.
        self.assertEqual(panels_of("NOTDEFINED", {"LEFT": "TOPHUNG"}), (Panel(WHOLE, ("top",)),))


class SymbolTests(TestCase):
    def test_the_apex_lies_at_the_hinge_as_seen_from_outside(self):
        apex = {
            "right": (2200.0, 1400.0),
            "left": (1000.0, 1400.0),
            "top": (1600.0, 1900.0),
            "bottom": (1600.0, 900.0),
        }
        for hinge, at in apex.items():
            with self.subTest(hinge):
                window = replace(SOUTH, panels=(Panel(WHOLE, (hinge,)),))
                (line,) = opening(house(window), from_side("south"))
                role, points = line
                self.assertEqual((role, len(points)), ("symbol", 3))
                self.assertEqual(points[1], at)

    def test_what_opens_away_is_dashed_and_its_hinge_stays_where_it_is(self):
        inward = replace(SOUTH, corner=(1000.0, 100.0, 900.0), along=(1.0, 0, 0), into=(0.0, 1.0, 0))
        (line,) = opening(house(inward), from_side("south"))
        self.assertEqual(line[0], "hidden")
        # Right as seen from the side it opens to is left from here.
        self.assertEqual(line[1][1], (1000.0, 1400.0))

    def test_it_is_on_demand_in_upright_views_and_hidden_by_what_stands_before_it(self):
        self.assertEqual(opening(house(), Elevation("south")), [])
        self.assertEqual(
            opening(house(), Plan("Ground", line_settings=LineSettings(opening_windows=True))), []
        )
        self.assertEqual(opening(house(), from_side("north")), [])
        made = house()
        tree = building([box((900, -900, 0), (2300, -800, 3000))])
        before = replace(
            made,
            elements=(*made.elements, replace(tree.elements[0], id="e2")),
            vertices=np.concatenate([made.vertices, tree.vertices]),
            triangles=np.concatenate([made.triangles, tree.triangles + len(made.vertices)]),
            triangle_element=np.concatenate([made.triangle_element, np.full(12, 2, np.int32)]),
            triangle_material=np.concatenate([made.triangle_material, tree.triangle_material]),
        )
        self.assertEqual(opening(before, from_side("south")), [])

    def test_every_way_of_opening_has_lines_within_its_window(self):
        for operation, hinges in HINGES.items():
            with self.subTest(operation):
                window = replace(SOUTH, panels=(Panel((0.0, 0.5, 0.0, 1.0), hinges),))
                points = np.array([p for _, line in opening(house(window), from_side("south")) for p in line])
                self.assertGreaterEqual(points[:, 0].min(), 1600.0)
                self.assertEqual((points[:, 1].min(), points[:, 1].max()), (900.0, 1900.0))


class FileTests(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "house.ifc"

    def read(self, schema="IFC4", by_type=True):
        file = ifcopenshell.open(str(write_ifc(self.path, schema, extra="IfcWindow")))
        (window,) = file.by_type("IfcWindow")
        history = window.OwnerHistory
        guid = ifcopenshell.guid.new
        panel = file.create_entity(
            "IfcWindowPanelProperties", guid(), history, None, None, "SIDEHUNGLEFTHAND", "MIDDLE"
        )
        if schema == "IFC2X3":
            kind = file.create_entity("IfcWindowStyle", guid(), history, "Casement", ConstructionType="WOOD",
                                      OperationType="SINGLE_PANEL", HasPropertySets=[panel])  # fmt: skip
        else:
            kind = file.create_entity("IfcWindowType", guid(), history, "Casement", PredefinedType="WINDOW")
            kind.PartitioningType, kind.HasPropertySets = "SINGLE_PANEL", [panel] if by_type else None
        file.create_entity("IfcRelDefinesByType", guid(), history, None, None, [window], kind)
        if not by_type:
            file.create_entity("IfcRelDefinesByProperties", guid(), history, None, None, [window], panel)
        file.write(str(self.path))
        return read_building(self.path)

    def test_a_windows_type_or_the_window_itself_says_how_it_opens(self):
        for given in ({}, {"schema": "IFC2X3"}, {"by_type": False}):
            with self.subTest(**given):
                made = self.read(**given)
                (window,) = made.windows.values()
                self.assertEqual(window.panels, (Panel(WHOLE, ("left",)),))
                np.testing.assert_allclose((window.width, window.depth, window.height), (5000, 200, 2500))
                np.testing.assert_allclose(window.into, (0, 1, 0))

    def test_it_is_kept_and_follows_unit_and_axes(self):
        made = self.read()
        kept = self.path.with_suffix(".npz")
        save_building(made, kept)
        self.assertEqual(load_building(kept).windows, made.windows)
        (window,), (scaled,) = made.windows.values(), in_unit(made, "cm").windows.values()
        self.assertEqual(scaled.width, window.width * 10)
        (turned,) = in_axes(made, Axes((0, 0, 0), 90.0)).windows.values()
        np.testing.assert_allclose(turned.into, (1, 0, 0), atol=1e-12)
