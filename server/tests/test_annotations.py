"""Annotation: where it stands, what it is attached to, and what becomes of it with a new model version."""

import io
import uuid

import openpyxl
import pypdfium2
from ifcopenshell import guid

from drafting.tests.pdf_reading import strokes
from server.annotations.models import Annotation
from server.annotations.viewsets import plain_cells
from server.buildings.models import ModelVersion
from server.tests.api_case import ApiCase
from server.views.models import View

#: The id of the house's wall, which it keeps from file to file.
WALL = guid.compress(uuid.uuid5(uuid.NAMESPACE_OID, "Wall").hex)


class AnnotationCase(ApiCase):
    """The house's wall is 5 m long and 0.2 m thick; its lower left corner lies at x = 1000."""

    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.view = self.view_named(self.project, "Plan, Deck")["id"]
        self.sheet = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        self.viewport = self.place(scale="1:50", at=[120, 200])

    def place(self, **given):
        body = {"sheet": self.sheet, "view": self.view, **given}
        return self.call("post", "viewports/", body, 201)["id"]

    def anchors(self):
        """The ends of the wall's lower face."""
        u0, v0, u1, _ = View.objects.get(pk=self.view).linework.extents
        return [{"at": at, "element": WALL} for at in ([u0, v0], [u1, v0])]

    def dimension(self, **given):
        return {
            "kind": "dimension",
            "points": self.anchors(),
            "measures": "horizontal",
            "offset": 12.0,
            **given,
        }

    def add(self, spec, status=201, **home):
        home = home or {"sheet": self.sheet, "viewport": self.viewport}
        return self.call("post", "annotations/", {"project": self.project, "spec": spec, **home}, status)

    def pieces(self, sheet=None):
        return self.call("get", f"sheets/{sheet or self.sheet}/display/")["pieces"]


class AnnotationTests(AnnotationCase):
    def test_a_dimension_knows_the_corners_that_it_is_attached_to(self):
        made = self.add(self.dimension())
        ends = [point["ends"] for point in made["spec"]["points"]]
        self.assertEqual([len(end) for end in ends], [1, 1])
        self.assertEqual(ends[0][0]["reach"], [0.0, 0.0, 5000.0, 200.0])
        (piece,) = self.pieces()
        self.assertEqual((piece["text"], piece["standing"]), ("5000", "followed"))

    def test_levels_stand_beside_an_elevation_and_are_refused_on_a_plan(self):
        elevation = self.view_named(self.project, "South elevation")
        viewport = self.place(view=elevation["id"], scale="1:50", at=[120, 100])
        body = {"viewport": viewport, "wanted": ["openings", "slabs", "whole"], "side": "left"}
        made = self.call("post", "annotations/levels/", body, 200)
        self.assertEqual([level["series"] for level in made], [f"left {k + 1}" for k in range(len(made))])
        for level in made:
            self.add(level, sheet=self.sheet, viewport=viewport)
        pieces = self.pieces()
        self.assertEqual({piece["standing"] for piece in pieces}, {"followed"})
        # Those of an earlier run are not what later ones keep clear of.
        self.assertEqual(self.call("post", "annotations/levels/", body, 200), made)
        # Those of a neighbour are: a drawing beside it has its own elsewhere.
        beside = self.place(view=elevation["id"], scale="1:50", at=[121, 100])
        right = {**body, "side": "right"}
        own = self.call("post", "annotations/levels/", right, 200)
        for level in own:
            self.add(level, sheet=self.sheet, viewport=viewport)
        others = self.call("post", "annotations/levels/", {**right, "viewport": beside}, 200)
        for level, other in zip(own, others, strict=True):
            self.assertGreater(other["offset"], level["offset"] + 15)
        refused = self.call("post", "annotations/levels/", {**body, "viewport": self.viewport}, 400)
        self.assertIn("Heights are not seen", refused["detail"])

    def test_a_level_of_the_building_is_what_a_dimension_can_be_attached_to(self):
        elevation = self.view_named(self.project, "South elevation")
        viewport = self.place(view=elevation["id"], scale="1:50", at=[120, 100])
        u0, v0, _, v1 = elevation["extents"]
        level = {"at": [u0 - 900, v0], "element": "level:Deck"}
        points = [level, {"at": [u0, v1], "element": WALL}]
        made = self.add({"kind": "dimension", "points": points, "measures": "vertical"},
                        sheet=self.sheet, viewport=viewport)  # fmt: skip
        self.assertEqual([len(point["ends"]) for point in made["spec"]["points"]], [2, 1])
        (piece,) = self.pieces()
        self.assertEqual((piece["text"], piece["standing"]), ("2500", "followed"))
        gone = {**level, "element": "level:Cellar"}
        self.add({"kind": "dimension", "points": [gone, points[1]], "measures": "vertical"},
                 sheet=self.sheet, viewport=viewport)  # fmt: skip
        self.assertEqual(self.pieces()[1]["standing"], "followed")

    def test_a_longer_wall_changes_it_and_the_change_is_told_until_it_is_accepted(self):
        made = self.add(self.dimension())
        self.import_model(self.project, self.ifc(length=5600.0))
        self.call("post", "views/bring-up-to-date/", {"project": self.project}, 202)
        (piece,) = self.pieces()
        self.assertEqual((piece["text"], piece["standing"]), ("5600", "changed"))
        self.assertEqual(piece["words"], "5000 is now 5600")
        points = [
            {"at": at, "element": point["element"]}
            for at, point in zip(piece["at"], made["spec"]["points"], strict=True)
        ]
        self.call(
            "patch", f"annotations/{made['id']}/", {"spec": {**made["spec"], "points": points}, "version": 1}
        )
        (piece,) = self.pieces()
        self.assertEqual((piece["text"], piece["standing"]), ("5600", "followed"))

    def test_with_the_wall_gone_it_is_lost_and_a_plot_says_so(self):
        self.add(self.dimension())
        row = Annotation.objects.get()
        for point in row.spec["points"]:
            point["element"] = guid.compress(uuid.uuid4().hex)
        row.save()
        (piece,) = self.pieces()
        self.assertEqual((piece["standing"], piece["text"]), ("lost", "5000"))
        plot, _ = self.plotted(self.project)
        self.assertTrue(any("lost" in note and "5000" in note for note in plot["notes"]), plot["notes"])

    def test_in_a_view_it_is_seen_in_each_of_its_viewports_at_their_scales_and_nowhere_else(self):
        other = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        second = self.call(
            "post", "viewports/", {"sheet": other, "view": self.view, "scale": "1:100", "at": [120, 200]}, 201
        )["id"]
        self.add(self.dimension(), view=self.view)
        (here,), (there,) = self.pieces(), self.pieces(other)
        self.assertEqual((here["viewport"], there["viewport"]), (self.viewport, second))
        self.assertEqual([here["text"], there["text"]], ["5000", "5000"])
        widths = [piece["points"][1][0] - piece["points"][0][0] for piece in (here, there)]
        self.assertEqual([round(width, 3) for width in widths], [100.0, 50.0])
        self.call("patch", f"viewports/{second}/", {"annotation": False, "version": 1})
        self.assertEqual(self.pieces(other), [])

    def test_on_a_sheet_it_is_seen_through_its_viewport_alone(self):
        self.place(scale="1:100", at=[300, 100])
        self.add(self.dimension())
        self.assertEqual([piece["viewport"] for piece in self.pieces()], [self.viewport])

    def test_it_can_be_moved_from_the_sheet_into_the_view_and_back(self):
        made = self.add(self.dimension())
        path = f"annotations/{made['id']}/"
        self.call("patch", path, {"view": self.view, "sheet": None, "viewport": None, "version": 1})
        both = self.call("patch", path, {"sheet": self.sheet, "version": 2}, 400)
        self.assertIn("in a view, or on a sheet", both["detail"])
        back = {"view": None, "sheet": self.sheet, "viewport": self.viewport, "version": 2}
        self.assertEqual(str(self.call("patch", path, back)["viewport"]), str(self.viewport))

    def test_notes_stand_on_the_bare_sheet_and_dimensions_do_not(self):
        note = {"kind": "note", "at": {"at": [40, 60]}, "text": "For comment"}
        self.add(note, sheet=self.sheet)
        (piece,) = self.pieces()
        self.assertEqual((piece["text"], piece["points"]), ("For comment", [[40, 60]]))
        self.assertIn("viewport", self.add(self.dimension(), 400, sheet=self.sheet)["detail"])

    def test_an_axonometric_is_noted_and_not_measured(self):
        spec = {"kind": "axonometric", "corner": "ne"}
        view = self.call("post", "views/", {"project": self.project, "spec": spec}, 201)["id"]
        self.assertIn("foreshortened", self.add(self.dimension(), 400, view=view)["detail"])
        self.add({"kind": "note", "at": {"at": [0, 0]}, "text": "Cedar"}, view=view)

    def test_levels_are_given_in_elevations_above_the_buildings_zero(self):
        south = self.view_named(self.project, "South elevation")
        _, v0, _, v1 = south["extents"]
        viewport = self.call(
            "post", "viewports/", {"sheet": self.sheet, "view": south["id"], "scale": "1:100"}, 201
        )["id"]
        level = {"kind": "level", "at": {"at": [2000, v1]}}
        self.add(level, sheet=self.sheet, viewport=viewport)
        (piece,) = self.pieces()
        self.assertEqual(piece["text"], "+5.500")
        self.assertAlmostEqual(v1 - v0, 2500.0)
        self.assertIn("heights", self.add(level, 400)["detail"])

    def test_it_goes_with_its_viewport_and_with_its_sheet(self):
        self.add(self.dimension())
        self.add({"kind": "note", "at": {"at": [40, 60]}, "text": "For comment"}, sheet=self.sheet)
        self.call("delete", f"viewports/{self.viewport}/", status=204)
        self.assertEqual(Annotation.objects.count(), 1)
        self.call("delete", f"sheets/{self.sheet}/", status=204)
        self.assertEqual(Annotation.objects.count(), 0)

    def test_it_stands_nowhere_in_another_project(self):
        other = self.make_project("Boat shed")
        sheet = self.call("post", "sheets/", {"project": other}, 201)["id"]
        note = {"kind": "note", "at": {"at": [40, 60]}, "text": "For comment"}
        self.assertIn("project", self.add(note, 400, sheet=sheet)["detail"])
        beside = self.call("post", "sheets/", {"project": self.project}, 201)["id"]
        refused = self.add(note, 400, sheet=beside, viewport=self.viewport)
        self.assertIn("on this sheet", refused["detail"])

    def test_bad_pieces_are_refused_by_their_fields(self):
        for spec, field in (
            ({"kind": "stamp"}, "spec"),
            ({"kind": "note", "at": {"at": [40, 60]}, "text": ""}, "spec.text"),
            ({"kind": "dimension", "points": [{"at": [0, 0]}]}, "spec.points"),
            ({"kind": "dimension", "points": [{"at": [0, 0]}, {"at": [0, 0]}]}, ""),
        ):
            with self.subTest(field):
                answer = self.add(spec, 400)
                self.assertTrue(answer["detail"])
                self.assertTrue(not field or field in answer["fields"], answer)
        self.assertEqual(Annotation.objects.count(), 0)

    def test_its_figures_are_in_the_pdf_as_text_and_on_their_own_layer(self):
        self.add(self.dimension())
        self.add({"kind": "note", "at": {"at": [40, 60]}, "text": "For comment"}, sheet=self.sheet)
        _, file = self.plotted(self.project)
        text = pypdfium2.PdfDocument(io.BytesIO(file))[0].get_textpage().get_text_range()
        for words in ("5000", "For comment"):
            self.assertIn(words, text)
        layers = {stroke.layer for stroke in strokes(file)}
        self.assertIn("Dimensions", layers)

    def test_a_schedule_follows_the_building_and_is_had_as_a_file(self):
        spec = {"kind": "schedule", "at": {"at": [40, 200]}, "of": "doors"}
        made = self.add(spec, sheet=self.sheet)
        (piece,) = self.pieces()
        self.assertEqual((piece["kind"], piece["text"]), ("schedule", "Doors"))
        self.assertIn("0 in all", self.words())
        self.import_model(self.project, self.ifc(extra="IfcDoor"))
        self.assertIn("1 in all", self.words())
        answer = self.client.get(f"/api/annotations/{made['id']}/csv/")
        self.assertEqual(answer["Content-Type"], "text/csv; charset=utf-8")
        lines = answer.content.decode("utf-8-sig").splitlines()
        self.assertEqual(lines, ["Number,Storey,Width,Height", "IfcDoor,,5000,2500"])
        answer = self.client.get(f"/api/annotations/{made['id']}/xlsx/")
        page = openpyxl.load_workbook(io.BytesIO(answer.content)).active
        rows = [[cell.value for cell in row] for row in page.iter_rows()]
        self.assertEqual(rows, [["Number", "Storey", "Width", "Height"], ["IfcDoor", None, "5000", "2500"]])
        self.assertIn("on the sheet", self.add(spec, 400)["detail"])
        note = self.add({"kind": "note", "at": {"at": [40, 60]}, "text": "For comment"}, sheet=self.sheet)
        for form in ("csv", "xlsx"):
            self.assertEqual(self.client.get(f"/api/annotations/{note['id']}/{form}/").status_code, 404)

    def test_no_cell_of_a_file_is_a_formula(self):
        self.assertEqual(plain_cells(["=1+1", "-5", "D01", ""]), ["'=1+1", "'-5", "D01", ""])

    def words(self):
        items = self.call("get", f"sheets/{self.sheet}/display/")["items"]
        return [item["text"] for item in items if item["type"] == "text"]


class CloudTests(AnnotationCase):
    """Clouds are on the sheet, and gone with its next revision."""

    def cloud(self, status=201, **given):
        spec = {"kind": "cloud", "first": {"at": [0, 0]}, "last": {"at": [30, 20]}, **given.pop("spec", {})}
        body = {"project": self.project, "spec": spec, **(given or {"sheet": self.sheet})}
        return self.call("post", "annotations/", body, status)

    def shown(self):
        display = self.call("get", f"sheets/{self.sheet}/display/")
        return [piece["text"] for piece in display["pieces"] if piece["kind"] == "cloud"]

    def test_it_is_gone_with_the_next_revision_unless_it_is_kept(self):
        sheet = self.call("get", f"sheets/{self.sheet}/")
        revised = {"revisions": [{"revision": "P01"}], "version": sheet["version"]}
        sheet = self.call("patch", f"sheets/{self.sheet}/", revised)
        self.cloud(spec={"revision": "P01"})
        self.cloud(spec={"revision": "P01", "kept": True}, sheet=self.sheet, viewport=self.viewport)
        self.assertEqual(self.shown(), ["P01", "P01"])
        revised = {"revisions": [{"revision": "P01"}, {"revision": "P02"}], "version": sheet["version"]}
        self.call("patch", f"sheets/{self.sheet}/", revised)
        self.assertEqual(self.shown(), ["P01"])

    def test_it_stands_on_a_sheet_only(self):
        self.assertIn("on the sheet", self.cloud(400, view=self.view)["detail"])


class TagTests(AnnotationCase):
    """The house has a wall and, here, a door beside it."""

    def setUp(self):
        super().setUp()
        self.import_model(self.project, self.ifc(extra="IfcDoor"))
        self.call("post", f"views/{self.view}/draw/", status=202)
        self.viewport = self.place(scale="1:100", at=[200, 180])

    def tags(self, status=200, **given):
        body = {"viewport": self.viewport, "classes": ["IfcDoor", "IfcWindow"], **given}
        return self.call("post", "annotations/tags/", body, status)

    def save(self, spec, status=201):
        body = {"project": self.project, "sheet": self.sheet, "viewport": self.viewport, "spec": spec}
        return self.call("post", "annotations/", body, status)

    def shown(self):
        display = self.call("get", f"sheets/{self.sheet}/display/")
        return [(piece["text"], piece["standing"]) for piece in display["pieces"] if piece["kind"] == "tag"]

    def test_all_of_a_drawing_are_tagged_and_say_what_the_building_says(self):
        (tag,) = self.tags(shows="both")
        self.save(tag)
        (opening,) = ModelVersion.objects.first().facts["openings"]
        size = f"{opening['width']:.0f} × {opening['height']:.0f}"
        self.assertEqual(self.shown(), [(f"{opening['name']} {size}", "followed")])
        # With its door gone it is lost, and says so.
        self.import_model(self.project, self.ifc())
        self.call("post", f"views/{self.view}/draw/", status=204)
        self.assertEqual(self.shown(), [("–", "lost")])

    def test_what_is_no_door_or_window_has_no_tag(self):
        self.assertIn("shows none of these", self.tags(400, classes=["IfcWindow"])["detail"])
        wall = {"kind": "tag", "at": {"at": [0, 0], "element": WALL}}
        self.assertIn("Click one", self.save(wall, 400)["detail"])
        self.tags(400, classes=[])
