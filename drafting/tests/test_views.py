"""Views as they are typed and kept."""

import json
from unittest import TestCase

import numpy as np

from drafting.errors import ViewError
from drafting.geometry.regions import Rectangle
from drafting.linework.model import linework_key
from drafting.tests.scenes import box, building
from drafting.views.axonometric import Axonometric
from drafting.views.camera import CutPlane
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation
from drafting.views.line_settings import LineSettings
from drafting.views.notation import parse_view
from drafting.views.plan import CUT_HEIGHT, Plan, RoofPlan
from drafting.views.section import Section
from drafting.views.shown import Shown
from drafting.views.spec import dump_view, parse_view_spec
from drafting.views.titles import title_in

TYPED = (
    "plan:Ground@900", "plan:0", "roof", "elevation:east", "elevation:222.5", "section:0,0,1000,-500.5@3000",
    "section:0,0,1000,0,1000,700,3000,700", "axonometric:sw", "axonometric:30,-20",
    "perspective:0,0,1600,9000,9000,0@50",
    "detail:0,0,500,400:plan:0@900", "detail:100,200,50:section:0,0,1000,0",
)  # fmt: skip


class SpecTests(TestCase):
    def test_a_view_is_read_from_what_was_kept_of_it(self):
        for text in TYPED:
            view = parse_view(text)
            self.assertEqual(parse_view_spec(dump_view(view)), view)

    def test_a_storey_may_have_an_at_sign_in_its_name(self):
        self.assertEqual(parse_view("plan:Level @ quay").storey, "Level @ quay")
        self.assertEqual(parse_view("plan:Level @ quay@950").cut, 950)
        self.assertEqual(parse_view("plan:0").cut, CUT_HEIGHT)

    def test_what_is_no_view_is_refused(self):
        for text in ("", "plan:", "elevation:up", "section:1,2,3", "section:0,0,0,0", "axonometric:n",
        "roof:1",
                     "plan:0@-5", "plan:0@0", "section:0,0,1,1000@0", "worm:1", "axonometric:30,95",
                     "section:a,b",
                     "section:0,0,1000,0,1500,500,3000,500", "section:0,0,1000,0,1000,500",
                     "perspective:0,0,0",
                     "section:0,0,1000,0,1000,500,0,500", "perspective:0,0,0,0,0,5000",
                     "perspective:1,1,1,1,1,2",
                     "perspective:0,0,0,5000,0,0@170", "detail:0,0:roof", "detail:0,0,0,900:roof",
                     "detail:0,0,900:perspective:0,0,0,5000,0,0",
                     "detail:0,0,9:detail:0,0,9:roof"):  # fmt: skip
            with self.subTest(text), self.assertRaises(ViewError):
                parse_view(text)

    def test_what_is_kept_wrongly_is_refused(self):
        for kept in ({}, {"kind": "plan"}, {"kind": "plan", "storey": 3}, {"kind": "roof", "colour": 1},
                     {"kind": "plan", "storey": "0", "cut": "high"}, {"kind": "section", "line": [[1, 2]]}, 7,
                     {"kind": "roof", "line_settings": {"crease": 0}},
                     {"kind": "roof", "line_settings": {"glow": 1}},
                     {"kind": "roof", "line_settings": {"bands": [500, 400]}},
                     {"kind": "roof", "line_settings": {"far": -1}},
                     {"kind": "roof", "line_settings": {"hidden": "yes"}},
                     {"kind": "roof", "line_settings": {"seams": 1}},
                     {"kind": "roof", "line_settings": {"overhead": True}},
                     {"kind": "roof", "line_settings": {"bands": [1, 2, 3, 4, 5, 6, 7]}},
                     {"kind": "roof", "shown": ["a"]},
                     {"kind": "roof", "shown": {"without": "a"}},
                     {"kind": "roof", "line_settings": []}):  # fmt: skip
            with self.subTest(kept), self.assertRaises(ViewError):
                parse_view_spec(kept)

    def test_a_key_changes_with_all_that_the_drawing_depends_on(self):
        views = [parse_view(text) for text in (*TYPED, "plan:Ground@901")]
        views += [
            RoofPlan(line_settings=LineSettings(seams=True)),
            RoofPlan(shown=Shown(only=("a",))),
        ]
        keys = {linework_key(model, view) for model in ("a", "b") for view in views}
        self.assertEqual(len(keys), 2 * len(views))

    def test_a_view_of_which_little_is_said_is_the_one_with_the_usual_settings(self):
        plain = RoofPlan(line_settings=LineSettings(), shown=Shown())
        self.assertEqual(parse_view_spec({"kind": "roof"}), plain)
        self.assertEqual(dump_view(parse_view_spec({"kind": "roof"})), dump_view(plain))

    def test_a_fault_is_reported_by_its_field(self):
        with self.assertRaises(ViewError) as caught:
            parse_view_spec({"kind": "detail", "of": {"kind": "plan", "storey": "0", "cut": -1},
                             "region": {"shape": "circle", "centre": [0, 0], "radius": 500}})  # fmt: skip
        self.assertEqual(list(caught.exception.fields), ["of.cut"])

    def test_line_settings_and_choice_are_read_from_what_was_kept_of_them(self):
        view = Plan(
            storey="0",
            line_settings=LineSettings(
                crease=35.0, seams=True, hidden=True, overhead=True, far=9000.0, bands=(2000.0, 5000.0)
            ),
            shown=Shown(without_layers=("Roof",), only=("a", "b")),
        )
        self.assertEqual(parse_view_spec(json.loads(json.dumps(dump_view(view)))), view)


class CameraTests(TestCase):
    def test_every_camera_is_right_handed_and_upright(self):
        scene = building([box((0, 0, 0), (1000, 1000, 1000))])
        for text in TYPED:
            camera = parse_view(text).camera(scene)
            np.testing.assert_allclose(np.cross(camera.right, camera.up), camera.toward, atol=1e-12)
            np.testing.assert_allclose(camera.axes @ camera.axes.T, np.eye(3), atol=1e-12)

    def test_the_cut_of_a_plan_is_measured_from_its_floor(self):
        scene = building([box((0, 0, 0), (1000, 1000, 1000))])
        self.assertEqual(parse_view("plan:ground@900").camera(scene).cuts, (CutPlane(900),))

    def test_a_storey_that_is_not_there_is_reported_with_those_that_are(self):
        scene = building([box((0, 0, 0), (1000, 1000, 1000))])
        with self.assertRaisesRegex(ViewError, "“Attic”.*0: Ground"):
            parse_view("plan:Attic").camera(scene)

    def test_a_model_far_away_is_measured_from_nearby_and_two_versions_from_one_point(self):
        far = 12_345_678.0
        one, two = (building([box((far, far, 0), (far + x, far + 900, 900))]) for x in (1000, 70_000))
        self.assertLess(np.abs(one.vertices[0] - one.origin).max(), 1e7)
        np.testing.assert_array_equal(one.origin, two.origin)


class TitleTests(TestCase):
    def test_views_are_named_in_each_language(self):
        corner = Detail(Plan("Upper"), Rectangle((0, 0), (1, 1)))
        for view, english, german in (
            (Plan("Upper"), "Plan, Upper", "Grundriss Upper"),
            (RoofPlan(), "Roof plan", "Dachaufsicht"),
            (Elevation("south"), "South elevation", "Südansicht"),
            (Elevation(bearing=285.95), "West-north-west elevation", "Westnordwestansicht"),
            (Section(((0.0, 0.0), (1000.0, 0.0))), "Section", "Schnitt"),
            (Axonometric("se"), "Axonometric from the south-east", "Axonometrie von Südosten"),
            (
                Axonometric(bearing=341, altitude=20),
                "Axonometric from the north-north-west",
                "Axonometrie von Nordnordwesten",
            ),
            (corner, "Detail of plan, Upper", "Detail, Grundriss Upper"),
        ):
            self.assertEqual((title_in(view, "en"), title_in(view, "de")), (english, german))
            # In a language that has no names for them they have the English ones.
            self.assertEqual(title_in(view, "xx"), english)
