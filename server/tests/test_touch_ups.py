"""Touch-ups: kept with a view, drawn in its viewports or in one, found again in the next model version."""

from drafting.tests.pdf_reading import strokes
from server.tests.test_annotations import WALL, AnnotationCase
from server.touchups.models import TouchUp
from server.views.models import View

HIDE = {"hidden": True}


class TouchUpCase(AnnotationCase):
    """One touch-up hides the lower face of the house's wall."""

    def face(self, **change):
        start, end = self.anchors()
        choice = {"kind": "stretch", "element": WALL, "start": start, "end": end}
        return {"choice": choice, "change": change or HIDE}

    def touch(self, spec, status=201, **given):
        body = {"project": self.project, "view": self.view, "spec": spec, **given}
        return self.call("post", "touch-ups/", body, status)

    def drawing(self, viewport=None):
        display = self.call("get", f"sheets/{self.sheet}/display/")
        wanted = viewport or self.viewport
        items = [i for i in display["items"] if i["type"] == "drawing" and i["viewport"] == wanted]
        return items[0]["redrawn"], [t for t in display["touch_ups"] if t["viewport"] == wanted]


class TouchUpTests(TouchUpCase):
    def test_it_is_told_by_what_the_line_is_and_drawn_in_every_viewport_of_the_view(self):
        other = self.place(scale="1:100", at=[300, 200])
        made = self.touch(self.face())
        self.assertEqual(made["spec"]["view_kind"], "plan")
        self.assertEqual(len(made["spec"]["choice"]["start"]["ends"]), 1)
        for viewport in (self.viewport, other):
            (redrawn,), (found,) = self.drawing(viewport)
            self.assertTrue(redrawn["hidden"])
            self.assertTrue(redrawn["parts"] or redrawn["whole"])
            self.assertEqual((found["touch_up"], found["found"]), (made["id"], True))

    def test_it_holds_in_one_viewport_where_that_is_wanted(self):
        other = self.place(scale="1:100", at=[300, 200])
        self.touch(self.face(), viewport=self.viewport)
        self.assertEqual(len(self.drawing()[0]), 1)
        self.assertEqual(self.drawing(other), ([], []))

    def test_it_is_kept_through_a_new_version_and_told_when_its_line_is_gone(self):
        made = self.touch(self.face())
        alike = self.touch({"choice": {"kind": "alike", "element": WALL, "role": "cut"}, "change": HIDE})
        self.import_model(self.project, self.ifc(length=5600.0))
        self.call("post", "views/bring-up-to-date/", {"project": self.project}, 202)
        self.assertEqual([found["found"] for found in self.drawing()[1]], [True, True])
        # Seen from the side there is no such line.
        view = self.call("get", f"views/{self.view}/")
        self.call("patch", f"views/{self.view}/", {"spec": {"kind": "elevation", "side": "south"},
                                                   "version": view["version"]})  # fmt: skip
        redrawn, found = self.drawing()
        self.assertEqual((redrawn, [each["found"] for each in found]), ([], [False, False]))
        for each in (made, alike):
            self.call("delete", f"touch-ups/{each['id']}/", {"version": each["version"]}, 204)
        self.assertEqual(self.drawing(), ([], []))

    def test_what_chooses_nothing_or_belongs_elsewhere_is_refused(self):
        gone = {"choice": {"kind": "inside", "element": "nobody"}, "change": HIDE}
        self.assertIn("Nothing of", self.touch(gone, 400)["detail"])
        self.assertIn("changes nothing", self.touch({**self.face(), "change": {}}, 400)["detail"])
        south = self.view_named(self.project, "South elevation")["id"]
        self.assertIn("viewport", self.touch(self.face(), 400, view=south, viewport=self.viewport)["fields"])
        other = self.make_project("Other")
        self.touch(self.face(), 400, project=other)
        face = self.face()
        View.objects.filter(pk=self.view).update(linework=None)
        self.assertIn("not drawn yet", self.touch(face, 400)["detail"])
        self.assertFalse(TouchUp.objects.exists())

    def test_one_that_is_taken_back_is_undone_though_its_line_is_gone(self):
        made = self.touch(self.face())
        self.call("delete", f"touch-ups/{made['id']}/", {"version": made["version"]}, 204)
        spec = {**made["spec"], "choice": {**made["spec"]["choice"], "element": "gone"}}
        again = self.touch(spec, id=made["id"])
        self.assertEqual(again["spec"], spec)
        self.assertEqual([each["found"] for each in self.drawing()[1]], [False])

    def test_a_view_is_simplified_in_viewports_of_a_small_scale_alone(self):
        small = self.place(scale="1:500", at=[300, 200])
        rule = {"from_scale": 200, "apart": 0.5, "small": 0.7, "fills": True}
        view = self.call("get", f"views/{self.view}/")
        view = self.call("patch", f"views/{self.view}/", {"simplification": rule, "version": view["version"]})
        self.assertEqual(view["simplification"], rule)
        self.assertEqual(self.drawing()[0], [])
        (redrawn,), _ = self.drawing(small)
        # The wall is 0.2 m thick: 0.4 mm at this scale.
        self.assertTrue(redrawn["hidden"] and (redrawn["whole"] or redrawn["parts"]))
        # What is done by hand goes over it.
        self.touch(self.face(role="cut"))
        self.assertEqual([each["hidden"] for each in self.drawing(small)[0]], [True, False])
        refused = {"simplification": {"from_scale": -5}, "version": view["version"]}
        self.assertIn("from scale", self.call("patch", f"views/{self.view}/", refused, 400)["detail"])
        self.call("patch", f"views/{self.view}/", {"simplification": None, "version": view["version"]})
        self.assertEqual([each["hidden"] for each in self.drawing(small)[0]], [False])

    def test_it_is_plotted_as_it_is_drawn(self):
        def widths():
            return [stroke.width for stroke in strokes(self.plotted(self.project)[1]) if stroke.width > 1.3]

        self.assertEqual(widths(), [])
        made = self.touch(self.face(stroke={"width": 1.4, "colour": "#aa0000"}))
        self.assertEqual({round(width, 2) for width in widths()}, {1.4})
        spec = {**made["spec"], "change": HIDE}
        self.call("patch", f"touch-ups/{made['id']}/", {"spec": spec, "version": made["version"]})
        self.assertEqual(widths(), [])
