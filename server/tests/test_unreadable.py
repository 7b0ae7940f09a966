"""Rows that were damaged where they are stored: each is named, and all the rest works."""

from drafting.plotting.settings import DEFAULT_PLOT_SETTINGS
from drafting.sheets.template_presets import DEFAULT_TEMPLATE
from drafting.styles.pen_presets import DEFAULT_PEN_TABLE
from server.annotations.models import Annotation
from server.changes.kinds import KINDS
from server.sheets.models import Register, Sheet, Template, Viewport
from server.styles.models import PenTable, PlotSettings
from server.tests.api_case import ApiCase
from server.touchups.models import TouchUp
from server.views.models import View

#: What may be stored of a row after a disk, a program or somebody has damaged it.
DAMAGED = ({"x": 1}, [], 7, {"kind": "\ud83d"}, {"kind": "note", "text": "\ud83d"})
NOTE = {"kind": "note", "text": "Lime", "at": {"at": [60.0, 250.0]}}


class UnreadableTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.client.raise_request_exception = False
        self.project = self.project_with_model()
        self.sheet = self.call("post", "sheets/", {"project": self.project, "title": "South"}, 201)["id"]
        self.other = self.call("post", "sheets/", {"project": self.project, "title": "Other"}, 201)["id"]
        self.south, self.north = (
            self.view_named(self.project, f"{side} elevation")["id"] for side in ("South", "North")
        )
        self.first = self.place(self.south, [120, 200])
        self.second = self.place(self.north, [300, 200])
        self.note, self.kept = (self.add(text) for text in ("Lime", "Lead"))

    def place(self, view, at):
        body = {"sheet": self.sheet, "view": view, "at": at, "scale": "1:100"}
        return self.call("post", "viewports/", body, 201)["id"]

    def add(self, text):
        body = {"project": self.project, "sheet": self.sheet, "spec": {**NOTE, "text": text}}
        return self.call("post", "annotations/", body, 201)["id"]

    def own(self, path, preset, model):
        """A project's own of something that is built in."""
        spec = self.call("get", f"{path}/{self.preset(model, preset)}/")["spec"]
        body = {"project": self.project, "name": "Ours", "spec": spec}
        return self.call("post", f"{path}/", body, 201)["id"]

    def listed(self, kind):
        """The ids in a list, which is the same by itself, with others, and with those of other projects."""
        path = kind.replace("_", "-")
        alone = [row["id"] for row in self.call("get", f"{path}/?project={self.project}")]
        beside = self.call("get", f"rows/?project={self.project}&kinds={kind}&kinds=sheets")[kind]
        self.assertEqual([row["id"] for row in beside], alone)
        self.assertTrue(set(alone) <= {row["id"] for row in self.call("get", f"{path}/")})
        return alone

    def unreadable(self):
        return self.call("get", f"unreadable/?project={self.project}")

    def drawn(self):
        """The drawings and the pieces on the sheet, by their ids."""
        display = self.call("get", f"sheets/{self.sheet}/display/")
        viewports = {item["viewport"] for item in display["items"] if item["type"] == "drawing"}
        return viewports, {piece["piece"] for piece in display["pieces"]}

    def test_in_a_sound_project_nothing_is_unreadable(self):
        self.assertEqual(self.unreadable(), [])

    def test_a_damaged_piece_is_left_out_by_name_and_the_others_are_drawn(self):
        for spec in DAMAGED:
            with self.subTest(ascii(spec)):
                Annotation.objects.filter(pk=self.note).update(spec=spec)
                self.assertEqual(self.listed("annotations"), [self.kept])
                self.assertEqual(self.drawn(), ({self.first, self.second}, {self.kept}))
                (found,) = self.unreadable()
                self.assertEqual((found["rows"], found["id"]), ("annotations", self.note))
                self.assertIn("piece of annotation", found["name"])
                self.assertIn(" on A-01", found["name"])
                self.assertTrue(found["why"])

    def test_a_damaged_view_takes_its_viewports_with_it_and_no_others(self):
        for damage in (*({"spec": spec} for spec in DAMAGED), {"appearance": 3}, {"simplification": [1]}):
            with self.subTest(ascii(damage)):
                whole = View.objects.get(pk=self.south)
                View.objects.filter(pk=self.south).update(**damage)
                self.assertNotIn(self.south, self.listed("views"))
                self.assertIn(self.north, self.listed("views"))
                self.assertEqual(self.listed("viewports"), [self.second])
                self.assertEqual(self.drawn()[0], {self.second})
                self.assertEqual(
                    [(f["rows"], f["name"]) for f in self.unreadable()],
                    [
                        ("viewports", "viewport “South elevation” on A-01"),
                        ("views", "view “South elevation”"),
                    ],
                )
                whole.save()

    def test_drawings_keep_their_numbers_beside_one_that_is_left_out(self):
        self.call("patch", f"sheets/{self.sheet}/", {"drawing_list": {"x": 30, "y": 290}, "version": 1})
        Viewport.objects.filter(pk=self.first).update(pens=[])
        items = self.call("get", f"sheets/{self.sheet}/display/")["items"]
        (title,) = [i for i in items if i.get("text") == "North elevation"]
        self.assertIn("2", [i.get("text") for i in items if i.get("viewport") == title.get("viewport")])

    def test_a_damaged_touch_up_is_left_out(self):
        row = TouchUp.objects.create(project_id=self.project, view_id=self.south, spec={"choice": 4})
        self.assertEqual(self.listed("touch_ups"), [])
        self.assertEqual(self.drawn()[0], {self.first, self.second})
        self.assertEqual(self.unreadable()[0]["name"], "touch-up in “South elevation”")
        row.delete()

    def test_a_sheet_without_its_template_is_refused_by_name_and_the_others_composed(self):
        template = self.own("templates", DEFAULT_TEMPLATE, Template)
        self.call("patch", f"sheets/{self.sheet}/", {"template": template, "version": 1})
        for spec in DAMAGED:
            with self.subTest(ascii(spec)):
                Template.objects.filter(pk=template).update(spec=spec)
                self.assertNotIn(template, self.listed("templates"))
                self.assertEqual(len(self.listed("sheets")), 2)
                refused = self.call("get", f"sheets/{self.sheet}/display/", status=400)["detail"]
                self.assertEqual(refused, "The template “Ours” cannot be read. Give A-01 another template.")
                self.call("get", f"sheets/{self.other}/display/")
        # The remedy holds.
        self.call(
            "patch",
            f"sheets/{self.sheet}/",
            {"template": self.preset(Template, DEFAULT_TEMPLATE), "version": 2},
        )
        self.call("get", f"sheets/{self.sheet}/display/")

    def test_a_sheet_without_its_pens_is_refused_by_name(self):
        table = self.own("pen-tables", DEFAULT_PEN_TABLE, PenTable)
        self.call("patch", f"sheets/{self.sheet}/", {"pen_table": table, "version": 1})
        PenTable.objects.filter(pk=table).update(spec={"x": 1})
        self.assertIn("“Ours”", self.call("get", f"sheets/{self.sheet}/display/", status=400)["detail"])
        self.call("get", f"sheets/{self.other}/display/")
        self.assertEqual(len(self.listed("sheets")), 2)

    def test_a_viewport_without_its_pens_is_drawn_with_its_sheets_and_says_so(self):
        table = self.own("pen-tables", DEFAULT_PEN_TABLE, PenTable)
        Viewport.objects.filter(pk=self.first).update(pen_table=table)
        PenTable.objects.filter(pk=table).update(spec={"x": 1})
        self.assertEqual(self.drawn()[0], {self.first, self.second})
        plot, _ = self.plotted(self.project, sheets=[self.sheet])
        said = "A-01: The pen table of viewport “South elevation” on A-01 cannot be read"
        self.assertTrue([note for note in plot["notes"] if note.startswith(said)], plot["notes"])

    def test_damaged_plot_settings_are_told_of_by_their_sheets(self):
        chosen = self.own("plot-settings", DEFAULT_PLOT_SETTINGS, PlotSettings)
        self.call("patch", f"sheets/{self.sheet}/", {"plot_settings": chosen, "version": 1})
        PlotSettings.objects.filter(pk=chosen).update(spec=[])
        rows = {row["id"]: row for row in self.call("get", f"sheets/?project={self.project}")}
        self.assertIn("“Ours” cannot be read", rows[self.sheet]["unprintable"]["conflicts"][0])
        self.assertEqual(rows[self.other]["unprintable"]["conflicts"], [])
        self.call("get", f"sheets/{self.sheet}/display/")

    def test_no_column_of_any_row_makes_a_list_fail(self):
        Sheet.objects.filter(pk=self.other).update(revisions=5, overrides=["\ud83d"], guides=3)
        Register.objects.filter(project=self.project).update(palette={"Brick": "\ud83d"}, revision_scheme=0)
        Viewport.objects.filter(pk=self.first).update(mark_offsets={"a": 3}, title_offset=[])
        for kind in KINDS:
            with self.subTest(kind):
                self.listed(kind)
        self.assertEqual(self.listed("sheets"), [self.sheet])
        self.assertEqual({found["rows"] for found in self.unreadable()}, {"sheets", "viewports", "registers"})

    def test_what_is_damaged_is_an_error_of_the_check_and_a_note_of_the_plot(self):
        Annotation.objects.filter(pk=self.note).update(spec={"x": 1})
        Sheet.objects.filter(pk=self.other).update(paper="nothing")
        self.call("post", "checks/", {"project": self.project}, 202)
        found = self.call("get", f"checks/?project={self.project}")["findings"]
        errors = {f["sheet"]: f["words"] for f in found if f["rule"] == "unreadable"}
        self.assertIn("Piece of annotation on A-01 cannot be read", errors[self.sheet])
        self.assertIn("It cannot be composed", errors[self.other])
        plot, _ = self.plotted(self.project, sheets=[self.sheet])
        self.assertTrue([note for note in plot["notes"] if "cannot be read" in note], plot["notes"])

    def test_a_new_model_version_is_drawn_by_all_other_views(self):
        View.objects.filter(pk=self.south).update(spec={"x": 1})
        self.assertEqual(self.import_model(self.project, self.ifc(length=5600.0))["state"], "done")
        self.call("post", "views/bring-up-to-date/", {"project": self.project}, 202)
        states = {v["id"]: v["state"] for v in self.call("get", f"views/?project={self.project}")}
        self.assertEqual(states[self.north], "up_to_date")

    def test_whatever_is_damaged_can_be_deleted_and_is_refused_by_name_until_then(self):
        template = self.own("templates", DEFAULT_TEMPLATE, Template)
        Sheet.objects.filter(pk=self.other).update(revisions=5, overrides={"client": "\ud83d"})
        Viewport.objects.filter(pk=self.first).update(corners=7, pens=[])
        View.objects.filter(pk=self.north).update(spec=[])
        Template.objects.filter(pk=template).update(spec={"x": "\ud83d"})
        Annotation.objects.filter(pk=self.note).update(spec={"text": "\ud83d"})
        damaged = {
            "sheets": self.other, "viewports": self.first, "views": self.north, "templates": template,
            "annotations": self.note,
        }  # fmt: skip
        for kind, pk in damaged.items():
            with self.subTest(kind):
                refused = self.call("get", f"{kind.replace('_', '-')}/{pk}/", status=400)["detail"]
                self.assertIn(" cannot be read: ", refused)
                step = {"rows": kind, "id": pk, "version": 0, "row": None}
                self.assertEqual(self.call("post", "changes/", {"steps": [step]})["rows"], [None])
        self.assertEqual(self.unreadable(), [])

    def test_it_is_deleted_or_written_anew(self):
        Annotation.objects.filter(pk__in=(self.note, self.kept)).update(spec={"x": 1})
        step = {"rows": "annotations", "id": self.note, "version": 0, "row": None}
        self.call("post", "changes/", {"steps": [step]})
        self.call("patch", f"annotations/{self.kept}/", {"spec": NOTE, "version": 1})
        self.assertEqual(self.unreadable(), [])
        self.assertEqual(self.listed("annotations"), [self.kept])
