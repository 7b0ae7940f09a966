"""Why a line is there: seams, hidden lines, what is overhead, what is far off, depth bands."""

from dataclasses import replace
from unittest import TestCase

import numpy as np
import shapely

from drafting.errors import ViewError
from drafting.linework.engine import draw
from drafting.tests.scenes import box, building, drawn, lines_of, ring, total_length
from drafting.views.line_settings import LineSettings
from drafting.views.plan import Plan

WALL, BEHIND = box((0, 0, 0), (6000, 300, 3000)), box((1000, 5000, 500), (2000, 6000, 2000))


class SeamTests(TestCase):
    def test_a_seam_comes_back_when_it_is_wanted(self):
        parts = [box((0, 0, 0), (1000, 300, 2000)), box((1000, 0, 0), (2500, 300, 2000))]
        self.assertEqual(total_length(drawn(parts, "elevation:south"), role="seam"), 0)
        wanted = drawn(parts, "elevation:south", seams=True)
        self.assertAlmostEqual(total_length(wanted, role="seam"), 2000, delta=1)
        outline = [x for x in wanted.lines if x.role != "seam"]
        self.assertAlmostEqual(
            sum(shapely.LineString(x.points[:, :2]).length for x in outline), 9000, delta=1
        )

    def test_a_seam_behind_a_wall_stays_away(self):
        parts = [box((1000, 900, 0), (2000, 1000, 2000)), box((2000, 900, 0), (2500, 1000, 2000))]
        self.assertEqual(total_length(drawn([WALL, *parts], "elevation:south", seams=True), role="seam"), 0)


class HiddenTests(TestCase):
    def test_what_a_wall_hides_is_drawn_hidden(self):
        linework = drawn([WALL, BEHIND], "elevation:south", hidden=True)
        hidden = lines_of(linework, role="hidden")
        self.assertLess(shapely.hausdorff_distance(hidden, ring(1000, 500, 2000, 2000)), 0.1)

    def test_hidden_lines_take_nothing_from_what_is_seen(self):
        plain, with_hidden = (
            drawn([WALL, BEHIND], "axonometric:se", hidden=hidden) for hidden in (False, True)
        )
        for role in ("profile", "edge"):
            a, b = lines_of(plain, role=role), lines_of(with_hidden, role=role)
            self.assertLess(shapely.hausdorff_distance(a, b), 0.1)

    def test_the_three_hidden_edges_of_a_cube(self):
        linework = drawn([box((0, 0, 0), (1000, 1000, 1000))], "axonometric:ne", hidden=True)
        # ISO 5456-3: the length of an edge along an axis is that times the root of two thirds.
        self.assertAlmostEqual(total_length(linework, role="hidden"), 3 * 1000 * (2 / 3) ** 0.5, delta=1)


class OverheadTests(TestCase):
    ROOF = box((-500, -800, 3000), (6500, 1500, 3200))

    def test_a_roof_above_the_cut_shows_its_outline(self):
        linework = drawn([WALL, self.ROOF], "plan:0", overhead=True)
        over = lines_of(linework, role="overhead")
        self.assertLess(shapely.hausdorff_distance(over, ring(-500, -800, 6500, 1500)), 0.1)
        self.assertAlmostEqual(total_length(linework, role="cut"), 2 * 6300, delta=1)

    def test_what_hangs_higher_than_the_roof_is_not_seen_from_below(self):
        vent = box((2000, 0, 3200), (2500, 500, 4000))
        linework = drawn([WALL, self.ROOF, vent], "plan:0", overhead=True)
        self.assertEqual(total_length(linework, element="e2"), 0)

    def test_without_the_setting_nothing_hangs_overhead(self):
        self.assertEqual(total_length(drawn([WALL, self.ROOF], "plan:0"), element="e1"), 0)


class OnDemandTests(TestCase):
    """Of what is above a plan's cut and below its floor, only what is wanted."""

    ROOF = box((-500, -800, 3000), (6500, 1500, 3200))
    BEAM = box((1000, -300, 2700), (1200, 1400, 3000))
    FOOTING = box((-200, -200, -800), (6200, 500, -100))
    FLOOR = box((-600, -900, -100), (6600, 1600, 0))

    def made(self, **settings):
        scene = building([WALL, self.ROOF, self.BEAM, self.FOOTING, self.FLOOR])
        elements = [replace(e, ifc_class="IfcBeam") if e.id == "e2" else e for e in scene.elements]
        plan = Plan("Ground", line_settings=LineSettings(**settings))
        return draw(replace(scene, elements=tuple(elements)), plan)

    def test_the_outline_of_all_that_is_above_goes_round_everything_once(self):
        over = lines_of(self.made(outline_above=True), role="overhead")
        self.assertLess(shapely.hausdorff_distance(over, ring(-500, -800, 6500, 1500)), 0.1)

    def test_the_outline_closes_over_joints_and_keeps_courtyards(self):
        sides = [
            ((0, 0), (9000, 1000)), ((0, 8000), (9000, 9000)),
            ((0, 1005), (1000, 7995)), ((8000, 1005), (9000, 7995)),
        ]  # fmt: skip
        roof = [box((*low, 3000.0), (*high, 3200.0)) for low, high in sides]
        over = lines_of(drawn(roof, "plan:0", outline_above=True), role="overhead")
        expected = shapely.union_all([ring(0, 0, 9000, 9000), ring(1000, 1000, 8000, 8000)])
        self.assertLess(shapely.hausdorff_distance(over, expected), 6.0)

    def test_beams_alone(self):
        drawing = self.made(beams_above=True)
        self.assertEqual({x.element for x in drawing.lines if x.role == "overhead"}, {"e2"})
        over = lines_of(drawing, role="overhead")
        self.assertLess(shapely.hausdorff_distance(over, ring(1000, -300, 1200, 1400)), 0.1)

    def test_what_is_below_the_floor_is_hidden_and_what_stands_on_it_is_not(self):
        drawing = self.made(below=True)
        self.assertEqual({x.element for x in drawing.lines if x.role == "hidden"}, {"e3"})
        footing = lines_of(drawing, role="hidden", element="e3")
        self.assertLess(shapely.hausdorff_distance(footing, ring(-200, -200, 6200, 500)), 0.1)
        self.assertEqual(total_length(self.made(), role="hidden"), 0)

    def test_views_that_are_no_plans_have_none_of_it(self):
        for name in ("outline_above", "beams_above", "below"):
            with self.subTest(name), self.assertRaisesRegex(ViewError, "Only a plan"):
                drawn([WALL], "elevation:south", **{name: True})


class DepthTests(TestCase):
    ROW = [box((k * 2000, k * 3000, 0), (k * 2000 + 1000, k * 3000 + 500, 1000)) for k in range(4)]

    def test_lines_beyond_the_distance_are_far(self):
        linework = drawn(self.ROW, "elevation:south", far=4000)
        roles = {x.element: x.role for x in linework.lines}
        self.assertEqual(roles, {"e0": "profile", "e1": "profile", "e2": "far", "e3": "far"})

    def test_the_band_of_a_line_tells_how_many_distances_lie_before_it(self):
        linework = drawn(self.ROW, "elevation:south", bands=[2000, 7000])
        self.assertEqual({x.element: x.band for x in linework.lines}, {"e0": 0, "e1": 1, "e2": 1, "e3": 2})

    def test_a_line_that_runs_away_changes_where_the_distance_is_reached(self):
        linework = drawn([box((0, 0, 0), (1000, 9000, 1000))], "plan:0@2000", far=1500)
        self.assertEqual({x.role for x in linework.lines}, {"profile"})
        sideways = drawn([box((0, 0, 0), (1000, 9000, 1000))], "axonometric:90,45", far=4000, bands=[4000])
        near = [x for x in sideways.lines if x.role != "far"]
        far = [x for x in sideways.lines if x.role == "far"]
        limit = max(x.points[:, 2].max() for x in sideways.lines) - 4000
        self.assertTrue(all(x.points[:, 2].min() >= limit - 0.01 and x.band == 0 for x in near))
        self.assertTrue(all(x.points[:, 2].max() <= limit + 0.01 and x.band == 1 for x in far))

    def test_from_a_cut_distances_are_measured_from_the_cut(self):
        linework = drawn(self.ROW, "section:-5000,1500,9000,1500", far=3000)
        self.assertEqual(
            {x.element: x.role for x in linework.lines}, {"e1": "profile", "e2": "far", "e3": "far"}
        )

    def test_what_is_cut_is_never_far(self):
        linework = drawn([box((0, 0, 0), (1000, 1000, 3000))], "plan:0", far=1)
        self.assertEqual({x.role for x in linework.lines}, {"cut"})


class BarTests(TestCase):
    def test_a_bar_has_no_heavy_outline_and_a_post_has(self):
        linework = drawn(
            [box((0, 0, 0), (40, 40, 1100)), box((500, 0, 0), (620, 120, 1100))], "elevation:south"
        )
        self.assertEqual({x.element: x.role for x in linework.lines}, {"e0": "edge", "e1": "profile"})

    def test_a_joint_round_a_window_makes_no_profile(self):
        meshes = [
            box((0, 0, 0), (1000, 300, 2000)),
            box((1008, 0, 0), (2000, 300, 2000)),
            box((0, 9000, 0), (2000, 9100, 2000)),
        ]
        joint = shapely.box(999, 100, 1009, 1900)
        profile = lines_of(drawn(meshes, "elevation:south", ["a", "b", "c"]), role="profile")
        self.assertEqual(shapely.intersection(profile, joint).length, 0)


class ShownTests(TestCase):
    def test_what_is_off_is_not_drawn_hides_nothing_and_is_not_cut(self):
        plain = drawn([BEHIND], "elevation:south")
        for shown in ({"without": ["e0"]}, {"only": ["e1"]}):
            linework = drawn([WALL, BEHIND], "elevation:south", shown=shown)
            self.assertEqual({x.element for x in linework.lines}, {"e1"})
            self.assertLess(shapely.hausdorff_distance(lines_of(linework), lines_of(plain)), 0.1)
        self.assertFalse(drawn([WALL, BEHIND], "plan:0", shown={"without": ["e0", "e1"]}).regions)

    def test_layers_storeys_and_classes_are_switched_by_name(self):
        for shown in (
            {"without_layers": ["Walls"]},
            {"without_storeys": ["Ground"]},
            {"without_classes": ["IfcWall"]},
        ):
            linework = drawn([WALL], "elevation:south", shown=shown)
            self.assertEqual(linework.lines, ())
            self.assertEqual(linework.notes, ("Everything is hidden in this view.",))

    def test_a_name_that_is_not_there_leaves_nothing_out_and_is_reported(self):
        linework = drawn([WALL], "elevation:south", shown={"without_layers": ["Sails"]})
        self.assertTrue(linework.lines)
        self.assertIn("“Sails”", linework.notes[0])


class OpenMeshTests(TestCase):
    def test_open_meshes_are_reported(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        linework = drawn([(points, faces[:-2]), WALL], "elevation:south")
        self.assertIn("1 element is not closed", linework.notes[0])

    def test_a_box_without_a_side_shows_its_inside(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        linework = drawn([(points, faces[[k for k in range(12) if k not in (4, 5)]])], "axonometric:sw")
        whole = drawn([(points, faces)], "axonometric:sw")
        self.assertGreater(total_length(linework), total_length(whole) + 500)

    def test_a_body_given_inside_out_is_drawn_as_if_it_were_not(self):
        points, faces = box((0, 0, 0), (1000, 1000, 1000))
        right, wrong = (
            drawn([(points, f), BEHIND], "axonometric:sw") for f in (faces, faces[:, ::-1].copy())
        )
        self.assertLess(shapely.hausdorff_distance(lines_of(right), lines_of(wrong)), 0.1)


class CreaseTests(TestCase):
    def test_a_fold_flatter_than_the_setting_is_no_edge(self):
        points = np.array(
            [[0, 0, 0], [1000, 0, 0], [2000, 0, 300], [0, 900, 0], [1000, 900, 0], [2000, 900, 300]], float
        )
        faces = np.array([[0, 1, 4], [0, 4, 3], [1, 2, 5], [1, 5, 4]], np.int32)
        fold = shapely.LineString([(1000, 10), (1000, 890)])
        for crease, wanted in ((10, 880), (30, 0)):
            ink = lines_of(drawn([(points, faces)], "roof", crease=crease))
            self.assertAlmostEqual(shapely.intersection(ink, fold.buffer(0.1)).length, wanted, delta=1)

    def test_the_slope_is_16_7_degrees_and_lies_between_both_settings(self):
        angles = building([box((0, 0, 0), (1, 1, 1))]).topology.edge_angle
        self.assertEqual(set(angles.round(6)), {0.0, 90.0})
        self.assertAlmostEqual(float(np.degrees(np.arctan(0.3))), 16.699, places=3)
