"""Sheets, viewports, and the PDF that comes of them."""

import uuid

import numpy as np

from drafting.tests.pdf_reading import page_sizes, strokes, text
from server.sheets.models import Sheet, Viewport
from server.styles.models import PlotSettings
from server.tests.api_case import ApiCase


class SheetTests(ApiCase):
    def setUp(self):
        super().setUp()
        self.project = self.project_with_model()
        self.view = self.view_named(self.project, "South elevation")["id"]
        self.sheet = self.call("post", "sheets/", {"project": self.project}, 201)

    def place(self, status=201, **given):
        return self.call(
            "post", "viewports/", {"sheet": self.sheet["id"], "view": self.view, **given}, status
        )

    def test_sheets_are_numbered_on_and_kept_in_order(self):
        self.assertEqual(self.sheet["number"], "A-01")
        self.assertEqual(self.call("post", "sheets/", {"project": self.project}, 201)["number"], "A-02")
        # Numbers go on after the pattern of the project; where nothing is numbered after it, from the last
        # one's own.
        Sheet.objects.filter(number="A-02").update(number="Q-119")
        self.assertEqual(self.call("post", "sheets/", {"project": self.project}, 201)["number"], "A-02")
        Sheet.objects.exclude(number="Q-119").delete()
        self.assertEqual(self.call("post", "sheets/", {"project": self.project}, 201)["number"], "Q-120")
        numbers = [s["number"] for s in self.call("get", f"sheets/?project={self.project}")]
        self.assertEqual(numbers, ["Q-119", "Q-120"])

    def test_a_view_is_placed_at_the_largest_standard_scale_that_fits(self):
        placed = self.place(at=[200, 180])
        self.assertEqual((placed["scale"], placed["ratio"]), ("1:20", 0.05))
        self.assertAlmostEqual(placed["width"], 5000 / 20 + 4)
        self.assertAlmostEqual(placed["x"] + placed["width"] / 2, 200)

    def test_cropping_and_moving_leave_the_scale_alone(self):
        placed = self.place()
        for change in ({"width": 40.0}, {"x": 33.0, "y": 44.0}, {"centre_u": 5.0, "centre_v": 6.0}):
            placed = self.call(
                "patch", f"viewports/{placed['id']}/", {**change, "version": placed["version"]}
            )
            self.assertEqual(placed["scale"], "1:20")

    def test_a_scale_that_is_none_is_refused_by_name_and_changes_nothing(self):
        placed = self.place()
        for scale in ("0:1", "1:0", "-1:50", "half size", "", 50, "1:999999999"):
            with self.subTest(scale):
                answer = self.call("patch", f"viewports/{placed['id']}/", {"scale": scale, "version": 1}, 400)
                self.assertIn("scale", answer["detail"].lower() + str(answer["fields"]))
        self.assertEqual(self.call("get", f"viewports/{placed['id']}/"), placed)

    def test_an_odd_scale_is_kept_exact(self):
        placed = self.place(scale="1:33 1/3")
        self.assertEqual(placed["scale"], "1:33 1/3")
        stored = Viewport.objects.get()
        self.assertEqual((stored.scale_paper, stored.scale_real), (3, 100))

    def test_a_viewport_that_could_not_be_seen_is_refused(self):
        placed = self.place()
        for change, why in (
            ({"width": 0}, "too small"),
            ({"height": -5}, "too small"),
            ({"x": 500}, "off the A3"),
        ):
            answer = self.call("patch", f"viewports/{placed['id']}/", {**change, "version": 1}, 400)
            self.assertIn(why, answer["detail"])
        self.assertIn("whole place", self.place(400, x=10)["detail"])

    def test_on_another_paper_contents_keep_their_scale_and_place_from_the_title_block(self):
        placed = self.place(scale="1:50")
        for paper, way, by in (("A1", "landscape", 841 - 420), ("500 x 700", "portrait", 500 - 420)):
            version = self.call("get", f"sheets/{self.sheet['id']}/")["version"]
            change = {"paper": paper, "orientation": way, "version": version}
            self.call("patch", f"sheets/{self.sheet['id']}/", change)
            now = self.call("get", f"viewports/{placed['id']}/")
            self.assertAlmostEqual(now["x"], placed["x"] + by)
            self.assertEqual(
                [now[k] for k in ("y", "width", "scale")], [placed[k] for k in ("y", "width", "scale")]
            )
        change = {"paper": "A9", "version": version + 1}
        self.assertIn("A9", self.call("patch", f"sheets/{self.sheet['id']}/", change, 400)["detail"])

    def test_what_the_device_cannot_print_is_reported(self):
        def changed(version, **changes):
            return self.call("patch", f"sheets/{self.sheet['id']}/", {**changes, "version": version})[
                "unprintable"
            ]

        self.assertEqual(self.sheet["unprintable"], {"conflicts": [], "margins": [0, 0, 0, 0]})
        self.assertEqual(changed(1, plot_settings=self.preset(PlotSettings, "office"))["margins"], [5] * 4)
        # Half as large on the same paper, and so the margins reach twice as far into the sheet.
        margins = changed(2, paper="A1")["margins"]
        self.assertAlmostEqual(margins[0], 10, delta=1)
        self.assertEqual(
            changed(3, plot_settings=self.preset(PlotSettings, "roll"))["margins"], [17, 5, 17, 5]
        )
        (conflict,) = changed(4, paper="1200 x 1000")["conflicts"]
        self.assertIn("roll of 914.4 mm", conflict)
        answer = self.call(
            "patch", f"sheets/{self.sheet['id']}/", {"plot_settings": str(uuid.uuid4()), "version": 5}, 400
        )
        self.assertIn("plot settings", answer["detail"].lower())

    def test_a_change_made_from_an_older_state_is_refused_with_the_state_there_is(self):
        placed = self.place()
        path = f"viewports/{placed['id']}/"
        self.call("patch", path, {"x": 30, "version": 1})
        answer = self.call("patch", path, {"x": 90, "version": 1}, 409)
        self.assertEqual((answer["current"]["x"], answer["current"]["version"]), (30, 2))
        self.assertIn("version", self.call("patch", path, {"x": 90}, 400)["fields"])

    def test_what_was_deleted_comes_back_under_its_own_id(self):
        placed = self.place()
        self.call("delete", f"viewports/{placed['id']}/", status=204)
        body = {key: value for key, value in placed.items() if key not in ("version", "ratio")}
        again = self.call("post", "viewports/", body, 201)
        self.assertEqual({**again, "version": 1}, placed)
        self.call("post", "viewports/", body, 400)

    def test_a_view_of_another_project_is_not_placed(self):
        other = self.call("post", "projects/", {"name": "Other"}, 201)["id"]
        sheet = self.call("post", "sheets/", {"project": other}, 201)["id"]
        answer = self.call("post", "viewports/", {"sheet": sheet, "view": self.view}, 400)
        self.assertIn("no such view in this project", answer["detail"])

    def test_the_display_list_follows_viewport_project_and_title(self):
        placed = self.place(scale="1:50")
        self.call("patch", f"sheets/{self.sheet['id']}/", {"title": "Wall of the quay", "version": 1})
        display = self.call("get", f"sheets/{self.sheet['id']}/display/")
        words = [i["text"] for i in display["items"] if i["type"] == "text"]
        for wanted in (
            "Wall of the quay",
            "Quay house",
            "Reed and Rope",
            "South elevation",
            "1:50",
            "1 of 1",
            "A3",
        ):
            self.assertIn(wanted, words)
        (drawing,) = (i for i in display["items"] if i["type"] == "drawing")
        self.assertEqual((drawing["viewport"], drawing["ratio"]), (placed["id"], 0.02))
        self.assertAlmostEqual(drawing["clip"][0][0], placed["x"])

    def test_the_pdf_of_a_sheet_measures_true_in_two_scales(self):
        for scale, at in (("1:50", [120, 200]), ("1:100", [300, 200])):
            self.place(scale=scale, at=at)
        plot, pdf = self.plotted(self.project)
        response = self.client.get(f"/api/plots/{plot['id']}/file/")
        self.assertEqual(response["Content-Type"], "application/pdf")
        spans = [np.ptp(s.points, axis=0) for s in strokes(pdf)]
        for wanted in ([100, 50], [50, 25]):
            self.assertTrue(any(np.allclose(span, wanted, atol=0.01) for span in spans), wanted)
        self.assertIn("Quay house", text(pdf))

    def test_chosen_sheets_are_plotted_in_register_order_in_their_own_sizes(self):
        second = self.call(
            "post", "sheets/", {"project": self.project, "paper": "A1", "orientation": "portrait"}, 201
        )
        self.call("post", "sheets/", {"project": self.project, "paper": "A4"}, 201)
        _, pdf = self.plotted(self.project, sheets=[second["id"], self.sheet["id"]])
        np.testing.assert_allclose(page_sizes(pdf), [(420, 297), (594, 841)], atol=0.01)
        self.assertIn("2 of 3", text(pdf, 1))

    def test_the_list_of_drawings_follows_the_register(self):
        other = self.call(
            "post", "sheets/", {"project": self.project, "title": "Sections", "paper": "A1"}, 201
        )
        self.place(scale="1:50")
        change = {"drawing_list": {"x": 30, "y": 270}, "title": "Cover", "version": 1}
        self.call("patch", f"sheets/{self.sheet['id']}/", change)

        def listed():
            display = self.call("get", f"sheets/{self.sheet['id']}/display/")
            (table,) = display["tables"]
            self.assertEqual((table["x"], table["y"] + table["height"]), (30, 270))
            texts = [
                i
                for i in display["items"]
                if i["type"] == "text" and 30 < i["at"][0] < 210 and i["at"][1] < 262
            ]
            rows = {}
            for item in texts:
                if table["y"] < item["at"][1]:
                    rows.setdefault(round(item["at"][1], 3), []).append(item["text"])
            return [rows[y] for y in sorted(rows, reverse=True)][1:]

        first, second = ["A-01", "Cover", "A3", "1:50"], ["A-02", "Sections", "A1", "–"]
        self.assertEqual(listed(), [first, second])
        self.call("patch", f"sheets/{other['id']}/", {"position": 0, "version": 1})
        self.call("patch", f"sheets/{self.sheet['id']}/", {"position": 1, "version": 2})
        self.assertEqual(listed(), [second, first])

    def test_nothing_to_plot_is_said(self):
        empty = self.call("post", "projects/", {"name": "Empty"}, 201)["id"]
        self.assertIn("no sheet", self.call("post", "plots/", {"project": empty}, 400)["detail"])

    def test_an_id_that_is_not_there_is_not_found(self):
        self.call("get", f"sheets/{uuid.uuid4()}/", status=404)
