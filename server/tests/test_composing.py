"""Composing a sheet: shapes, pins, what viewports show and how, laying out, and scales of one's own."""

from django.db import connection
from django.test.utils import CaptureQueriesContext

from server.sheets.composing import display_of, drawing_list_on
from server.sheets.models import Register, Sheet, Viewport
from server.tests.api_case import ApiCase
from server.views.models import Linework


class ComposingTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.view = self.view_named(self.project, "South elevation")["id"]
        self.sheet = self.call("post", "sheets/", {"project": self.project}, 201)["id"]

    def place(self, status=201, **given):
        return self.call("post", "viewports/", {"sheet": self.sheet, "view": self.view, **given}, status)

    def change(self, viewport, status=200, **given):
        there = self.call("get", f"viewports/{viewport['id']}/")
        return self.call(
            "patch", f"viewports/{viewport['id']}/", {**given, "version": there["version"]}, status
        )

    def drawing(self, viewport):
        items = self.call("get", f"sheets/{self.sheet}/display/")["items"]
        return next(i for i in items if i["type"] == "drawing" and i["viewport"] == viewport["id"])

    def test_to_compose_a_sheet_is_to_read_alone(self):
        """It is done in a transaction that only reads, beside others who write."""
        self.place(scale="1:50")
        Register.objects.all().delete()
        said = []

        def listen(execute, sql, given, many, context):
            said.append(sql.split()[0])
            return execute(sql, given, many, context)

        with connection.execute_wrapper(listen):
            self.assertTrue(display_of(Sheet.objects.get(pk=self.sheet)).items)
        self.assertEqual(set(said), {"SELECT"})

    def test_a_list_of_drawings_asks_only_for_what_it_says(self):
        """What else changes on the sheets of a set is no reason to compose the one with the list again."""
        placed = self.place(scale="1:50")
        sheet = Sheet.objects.create(project_id=self.project, number="A-00", drawing_list={"x": 30, "y": 270})
        with CaptureQueriesContext(connection) as captured:
            self.assertEqual([row[3] for row in drawing_list_on(sheet).rows], ["–", "1:50"])
        asked = [query["sql"] for query in captured]
        before = [self.said_to(sql) for sql in asked]
        self.change(placed, x=placed["x"] + 5, centre_u=0.0)
        self.call("patch", f"sheets/{self.sheet}/", {"overrides": {"client": "Reed"}, "version": 1})
        self.assertEqual([self.said_to(sql) for sql in asked], before)
        self.change(placed, scale="1:100")
        self.assertNotEqual([self.said_to(sql) for sql in asked], before)

    def said_to(self, sql):
        with connection.cursor() as cursor:
            return cursor.execute(sql).fetchall()

    def test_a_viewport_can_be_round_or_have_any_corners(self):
        placed = self.place(scale="1:50")
        round_ = self.change(placed, shape="circle", width=60, height=60)
        self.assertEqual(round_["scale"], "1:50")
        self.assertEqual(len(self.drawing(placed)["clip"]), 256)
        corners = [[0, 0], [60, 0], [60, 30], [0, 60]]
        self.change(placed, shape="polygon", corners=corners)
        x, y = placed["x"], placed["y"]
        self.assertEqual(self.drawing(placed)["clip"], [[x + a, y + b] for a, b in corners])
        crossing = [[0, 0], [60, 60], [60, 0], [0, 60]]
        self.assertIn("cross", self.change(placed, 400, corners=crossing)["detail"])

    def test_a_pinned_viewport_keeps_frame_and_contents_until_it_is_unpinned(self):
        placed = self.change(self.place(), pinned=True)
        for change in ({"x": 40.0}, {"centre_u": 1.0}, {"scale": "1:100"}, {"turn": 5.0}):
            self.assertIn("pinned", self.change(placed, 400, **change)["detail"])
        self.assertTrue(self.change(placed, framed=True)["framed"])
        self.assertEqual(self.change(placed, pinned=False, x=40.0)["x"], 40.0)

    def test_turn_frame_and_ground_reach_the_display_list(self):
        placed = self.place()
        self.change(placed, turn=30.0, framed=True, opaque=True, pens={"roles": {"cut": {"width": 1.0}}})
        drawing = self.drawing(placed)
        self.assertEqual(
            (drawing["turn"], drawing["opaque"], drawing["outline"]["width"]), (30.0, True, 0.25)
        )
        self.assertEqual(drawing["pens"]["cut"]["width"], 1.0)
        self.assertIn("edges", self.change(placed, 400, pens={"roles": {"edges": {"width": 1.0}}})["detail"])

    def test_a_viewport_that_shows_less_has_a_drawing_of_its_own_and_the_view_keeps_its(self):
        one, two = self.place(scale="1:50", at=[100, 200]), self.place(scale="1:50", at=[300, 200])
        less = self.change(two, shown={"without_classes": ["IfcWall"]})
        less = self.call("get", f"viewports/{less['id']}/")
        self.assertNotEqual(less["linework"], one["linework"])
        self.assertEqual(self.drawing(one)["linework"], one["linework"])
        self.assertEqual(self.drawing(two)["linework"], less["linework"])
        self.assertLess(
            Linework.objects.get(pk=less["linework"]).lines, Linework.objects.get(pk=one["linework"]).lines
        )
        self.assertEqual(self.client.get(f"/api/linework/{less['linework']}/").status_code, 200)
        back = self.change(two, shown={})
        self.assertEqual((back["linework"], back["state"]), (one["linework"], "up_to_date"))

    def test_what_is_hidden_in_a_viewport_stays_hidden_when_it_shows_another_view(self):
        placed = self.place(scale="1:50")
        self.change(placed, shown={"without_storeys": ["Deck"]})
        south = self.view_named(self.project, "South elevation")
        self.change(placed, view=south["id"])
        now = self.call("get", f"viewports/{placed['id']}/")
        self.assertEqual((now["shown"]["without_storeys"], now["state"]), (["Deck"], "up_to_date"))
        self.assertNotEqual(now["linework"], south["linework"])

    def test_a_drawing_of_its_own_falls_behind_and_follows_its_view(self):
        placed = self.place(scale="1:50")
        self.change(placed, shown={"without_storeys": ["Deck"]})
        self.import_model(self.project, self.ifc(length=7500.0))
        self.assertEqual(self.call("get", f"viewports/{placed['id']}/")["state"], "out_of_date")
        self.call("post", "views/bring-up-to-date/", {"project": self.project}, 202)
        self.assertEqual(self.call("get", f"viewports/{placed['id']}/")["state"], "up_to_date")

    def words(self, sheet):
        items = self.call("get", f"sheets/{sheet}/display/")["items"]
        return [i["text"] for i in items if i["type"] == "text"]

    def test_a_section_is_marked_on_the_plan_and_follows_where_it_stands(self):
        spec = {"kind": "section", "line": [[-2000, 100], [7000, 100]]}
        section = self.call("post", "views/", {"project": self.project, "spec": spec}, 201)["id"]
        plan = self.view_named(self.project, "Roof plan")["id"]
        plan = self.call("post", "viewports/", {"sheet": self.sheet, "view": plan}, 201)
        self.change(plan, y=100, height=100)
        display = self.call("get", f"sheets/{self.sheet}/display/")
        marks = [link for link in display["links"] if link["view"] == str(section)]
        self.assertEqual(len(marks), 2)
        self.assertNotIn("Z-77", self.words(self.sheet))
        other = self.call("post", "sheets/", {"project": self.project, "number": "Z-77"}, 201)
        self.call("post", "viewports/", {"sheet": other["id"], "view": section}, 201)
        self.assertEqual(self.words(self.sheet).count("Z-77"), 2)
        self.call("patch", f"sheets/{other['id']}/", {"number": "Z-78", "version": 1})
        self.assertEqual((self.words(self.sheet).count("Z-77"), self.words(self.sheet).count("Z-78")), (0, 2))
        self.call("delete", f"sheets/{other['id']}/", status=204)
        self.assertNotIn("Z-78", self.words(self.sheet))

    def test_marks_levels_and_titles_are_seen_where_they_are_wanted(self):
        placed = self.place(scale="1:50")
        self.assertIn("+3.000", self.words(self.sheet))
        self.assertIn("Deck", self.words(self.sheet))
        self.change(placed, levels=False, title_style="bar")
        words = self.words(self.sheet)
        self.assertNotIn("+3.000", words)
        self.assertIn("2 m", words)
        self.change(placed, title_style="none")
        self.assertNotIn("1:50", [w for w in self.words(self.sheet) if w != "1:50"])
        self.assertIn("edges", self.change(placed, 400, title_style="edges")["detail"])

    def test_rooms_are_named_on_plans_where_they_are_wanted(self):
        self.import_model(self.project, self.ifc(extra="IfcSpace"))
        plan = self.view_named(self.project, "Plan, Deck")["id"]
        # The space lies beside the wall, at x = 9000 to 14000.
        placed = self.place(view=plan, scale="1:100")
        self.change(placed, x=60, y=150, width=200, height=60, centre_u=8000, centre_v=100)

        def names():
            items = self.call("get", f"sheets/{self.sheet}/display/")["items"]
            return [i["text"] for i in items if i["type"] == "text" and i["layer"] == "Rooms"]

        self.assertEqual(names(), ["IfcSpace  1.0 m²"])
        self.change(placed, rooms=False)
        self.assertEqual(names(), [])

    def test_what_cannot_be_left_out_is_refused(self):
        self.assertIn("at least 1", self.change(self.place(), 400, shown={"without_layers": [""]})["detail"])

    def custom_scales(self):
        rungs = self.call("get", f"ladder/?project={self.project}")
        return [rung["scale"] for rung in rungs if rung["ladder"] == "custom"]

    def test_a_scale_of_ones_own_is_kept_with_the_project(self):
        placed = self.place(scale="1:50")
        self.assertEqual(self.custom_scales(), [])
        self.change(placed, scale="1:33 1/3")
        self.change(placed, scale='1/4" = 1\'-0"')
        self.assertEqual(self.custom_scales(), ["1:33 1/3"])
        self.assertEqual(self.call("get", f"viewports/{placed['id']}/")["scale"], '1/4" = 1\'-0"')
        # Where feet are drawn in, the next view is placed in feet too.
        self.assertIn("1'-0\"", self.place()["scale"])

    def test_names_of_rooms_are_moved_and_rooms_are_tinted(self):
        self.import_model(self.project, self.ifc(extra="IfcSpace"))
        plan = self.view_named(self.project, "Plan, Deck")
        window = {"x": 30, "y": 60, "width": 200, "height": 60, "scale": "1:100"}
        centre = {"centre_u": 10_000, "centre_v": 0}
        row = {"sheet": self.sheet, "view": plan["id"], **window, **centre}
        placed = self.call("post", "viewports/", row, 201)

        def rooms():
            return self.call("get", f"sheets/{self.sheet}/display/")["rooms"]

        (before,) = rooms()
        change = {
            "room_offsets": {before["room"]: [3.0, -2.0]},
            "room_fill": True,
            "version": placed["version"],
        }
        self.call("patch", f"viewports/{placed['id']}/", change)
        (after,) = rooms()
        self.assertAlmostEqual(after["box"]["x"] - before["box"]["x"], 3.0)
        fills = [x for x in self.call("get", f"sheets/{self.sheet}/display/")["items"] if x["type"] == "fill"]
        self.assertIn("#f3ead9", [x["colour"] for x in fills])
        wrong = {"room_offsets": {before["room"]: [3.0]}, "version": placed["version"] + 1}
        self.call("patch", f"viewports/{placed['id']}/", wrong, 400)

    def test_the_next_view_takes_what_is_left_of_the_sheet(self):
        first = self.place(at=[110, 200], scale="1:50")
        spaces = self.call("get", f"sheets/{self.sheet}/spaces/")
        second = self.place()
        self.assertGreaterEqual(second["x"], first["x"] + first["width"])
        x, y, width, height = spaces[0].values()
        self.assertTrue(x <= second["x"] and second["x"] + second["width"] <= x + width)
        self.assertTrue(y <= second["y"] and second["y"] + second["height"] <= y + height)

    def test_a_projected_set_is_laid_out_in_one_action(self):
        names = ("South elevation", "East elevation", "Roof plan")
        views = [self.view_named(self.project, name)["id"] for name in names]
        answer = self.call("post", f"sheets/{self.sheet}/arrange/", {"views": views}, 201)
        made = answer["viewports"]
        self.assertEqual(answer["notes"], [])
        self.assertEqual([str(v["view"]) for v in made], views)
        self.assertEqual(len({v["scale"] for v in made}), 1)
        south, east, roof = made
        self.assertGreater(roof["y"], south["y"] + south["height"])
        self.assertGreater(east["x"], south["x"] + south["width"])
        self.assertEqual(Viewport.objects.count(), 3)
        answer = self.call(
            "post", f"sheets/{self.sheet}/arrange/", {"views": views, "projection": "sideways"}, 400
        )
        self.assertIn("sideways", answer["detail"])

    def test_views_that_have_no_place_in_the_projection_are_told(self):
        south = self.view_named(self.project, "South elevation")
        spec = {"kind": "elevation", "bearing": 200.0}
        aslant = self.call("post", "views/", {"project": self.project, "name": "Aslant", "spec": spec}, 201)
        views = [south["id"], south["id"], aslant["id"]]
        answer = self.call("post", f"sheets/{self.sheet}/arrange/", {"views": views}, 201)
        self.assertEqual(len(answer["viewports"]), 3)
        self.assertEqual(
            answer["notes"],
            [
                "“South elevation” is seen from the same side as “South elevation” and stands in a corner.",
                "“Aslant” is seen aslant to “South elevation” and stands in a corner.",
            ],
        )

    def test_views_that_do_not_fit_are_not_laid_out_at_all(self):
        small = self.call("post", "sheets/", {"project": self.project, "paper": "150 x 140"}, 201)["id"]
        views = [v["id"] for v in self.call("get", f"views/?project={self.project}")]
        answer = self.call("post", f"sheets/{small}/arrange/", {"views": views}, 400)
        self.assertIn("larger paper", answer["detail"])
        self.assertEqual(Viewport.objects.count(), 0)
