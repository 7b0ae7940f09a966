"""The axes of a building: kept from version to version, changed, and followed by views and sheets."""

import numpy as np

from drafting.tests.ifc_files import write_turned_ifc
from server.sheets.models import Viewport
from server.tests.api_case import ApiCase
from server.views.models import View

OBJ = "v 0 0 0\nv 6 0 0\nv 6 3 0\nv 0 3 0\nf 1 2 3\nf 1 3 4\n"


class AxesTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.make_project()

    def turned(self, by):
        return write_turned_ifc(self.data / "turned.ifc", by).read_bytes()

    def newest(self):
        return self.call("get", f"model-versions/?project={self.project}")[0]

    def place(self, version, status=202, **given):
        answer = self.call("post", f"model-versions/{version['id']}/place/", given, status)
        return self.call("get", f"jobs/{answer['id']}/") if status == 202 else answer

    def test_a_turned_building_is_drawn_straight_and_says_how_it_stands(self):
        self.import_model(self.project, self.turned(20.0))
        facts = self.newest()["facts"]
        self.assertEqual((facts["axes"]["turn"], facts["true_north"], facts["on_grid"]), (20.0, 20.0, None))
        u0, _, u1, _ = self.view_named(self.project, "Roof plan")["extents"]
        self.assertAlmostEqual(u1 - u0, 5000.0, places=2)

    def test_a_later_version_keeps_the_axes_of_the_one_before(self):
        self.import_model(self.project, self.turned(20.0))
        self.import_model(self.project, self.turned(23.0))
        self.assertEqual(self.newest()["facts"]["axes"]["turn"], 20.0)

    def test_level_ground_is_given_kept_with_a_new_file_and_taken_away(self):
        self.import_model(self.project, self.turned(20.0))
        first = self.newest()["facts"]
        self.assertEqual((first["has_ground"], first["given"]["ground"]), (False, None))
        turn = first["axes"]["turn"]
        job = self.place(self.newest(), turn=turn, ground=2900.0)
        self.assertEqual(job["state"], "done", job["message"])
        self.import_model(self.project, self.turned(20.0))
        facts = self.newest()["facts"]
        self.assertEqual((facts["has_ground"], facts["given"]["ground"]), (True, 2900.0))
        self.assertEqual(facts["classes"]["IfcGeographicElement"], 1)
        # Other axes leave it as it is.
        self.place(self.newest(), turn=0.0)
        self.assertEqual(self.newest()["facts"]["given"]["ground"], 2900.0)
        self.place(self.newest(), turn=0.0, ground=None)
        self.assertFalse(self.newest()["facts"]["has_ground"])
        self.place(self.newest(), 400, turn=0.0, ground=1e9)

    def test_axes_are_changed_and_nothing_has_changed_but_the_way_of_telling_it(self):
        self.import_model(self.project, self.turned(20.0))
        line = [[0.0, 1000.0], [5000.0, 1000.0]]
        section = self.call(
            "post", "views/", {"project": self.project, "spec": {"kind": "section", "line": line}}, 201
        )
        job = self.place(self.newest(), turn=0.0)
        self.assertEqual(job["state"], "done", job["message"])
        version = self.newest()
        self.assertEqual((version["number"], version["facts"]["axes"]["turn"]), (2, 0.0))
        self.assertEqual({kind: len(x) for kind, x in version["changes"].items()},
                         {"added": 0, "removed": 0, "moved": 0, "reshaped": 0})  # fmt: skip
        moved = View.objects.get(pk=section["id"])
        angle = np.radians(20.0)
        turn = np.array([[np.cos(angle), np.sin(angle)], [-np.sin(angle), np.cos(angle)]])
        np.testing.assert_allclose(moved.spec["line"], np.array(line) @ turn, atol=0.01)
        self.assertEqual(moved.version, section["version"] + 1)

    def test_a_held_view_is_told_in_the_new_axes_when_it_follows_again(self):
        self.import_model(self.project, self.turned(20.0))
        spec = {"kind": "section", "line": [[0.0, 1000.0], [5000.0, 1000.0]]}
        section = self.call("post", "views/", {"project": self.project, "spec": spec}, 201)
        held = self.call("patch", f"views/{section['id']}/", {"held": True, "version": section["version"]})
        self.place(self.newest(), turn=110.0)
        self.assertEqual(View.objects.get(pk=section["id"]).spec["line"], spec["line"])
        self.call("patch", f"views/{section['id']}/", {"held": False, "version": held["version"]})
        line = View.objects.get(pk=section["id"]).spec["line"]
        np.testing.assert_allclose(line, [(1000.0, 0.0), (1000.0, -5000.0)], atol=0.01)

    def test_viewports_go_on_showing_what_they_showed(self):
        self.import_model(self.project, self.turned(20.0))
        sheet = self.call("post", "sheets/", {"project": self.project}, 201)
        plan, side = (self.view_named(self.project, name) for name in ("Roof plan", "South elevation"))
        placed = [
            self.call("post", "viewports/", {"sheet": sheet["id"], "view": view["id"]}, 201)
            for view in (plan, side)
        ]
        self.place(self.newest(), turn=110.0)
        before, after = placed[0], Viewport.objects.get(pk=placed[0]["id"])
        # The building's x axis runs where its y axis ran.
        np.testing.assert_allclose(
            (after.centre_u, after.centre_v), (before["centre_v"], -before["centre_u"]), atol=0.01
        )
        # The south side is another one now: its viewport stays as it is.
        self.assertEqual(Viewport.objects.get(pk=placed[1]["id"]).centre_u, placed[1]["centre_u"])

    def test_the_axes_are_found_anew_and_the_upward_one_is_chosen(self):
        self.import_model(self.project, self.turned(20.0))
        self.place(self.newest(), turn=5.0)
        self.place(self.newest(), turn=None)
        self.assertEqual(self.newest()["facts"]["axes"]["turn"], 20.0)
        flat = self.make_project("A wall from a mesh")
        self.project = flat
        self.import_model(flat, OBJ.encode(), name="wall.obj")
        self.assertAlmostEqual(self.newest()["facts"]["size"][2], 0.0)
        self.assertEqual(self.place(self.newest(), turn=None, up="y")["state"], "done")
        facts = self.newest()["facts"]
        self.assertAlmostEqual(facts["size"][2], 3000.0)
        self.assertEqual(facts["given"]["up"], "y")

    def test_the_origin_is_moved_and_nothing_else_has_changed(self):
        self.import_model(self.project, self.turned(20.0))
        self.place(self.newest(), turn=20.0, origin=[1000.0, 0.0, 3000.0])
        facts = self.newest()["facts"]
        self.assertEqual(facts["axes"], {"origin": [1000.0, 0.0, 3000.0], "turn": 20.0})
        # The floor that was 3 m up is at zero, and the drawings follow.
        self.assertEqual(facts["storeys"][0]["elevation"], 0.0)
        self.assertFalse(any(self.newest()["changes"].values()))
        self.call("post", "views/bring-up-to-date/", {"project": self.project}, 202)
        self.assertAlmostEqual(self.view_named(self.project, "South elevation")["extents"][1], 0.0, places=2)
        far = self.place(self.newest(), 400, turn=20.0, origin=[9e6, 0.0, 0.0])
        self.assertIn("more than 4 km", far["detail"])
        for wrong in ([0.0, 0.0], [0.0, 0.0, "high"], [1e12, 0.0, 0.0]):
            self.place(self.newest(), 400, turn=20.0, origin=wrong)

    def test_what_cannot_be_is_refused_with_the_reason(self):
        self.import_model(self.project, self.turned(20.0))
        first = self.newest()
        self.place(first, turn=0.0)
        self.assertIn("not the newest", self.place(first, 400, turn=5.0)["detail"])
        for turn in ("wide", 1e9, float("1e308")):
            self.place(self.newest(), 400, turn=turn)
        self.place(self.newest(), 400, turn=0.0, up="x")
        # An IFC file says itself that z points up.
        job = self.place(self.newest(), turn=0.0, up="y")
        self.assertEqual(job["state"], "failed")
        self.assertIn("z points up", job["message"])
        self.assertEqual(self.newest()["number"], 2)
