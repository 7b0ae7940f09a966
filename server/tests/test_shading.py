"""Pictures under the lines of viewports: made when asked for, kept by key, plotted as fine as paper."""

from __future__ import annotations

import io
from typing import Any
from unittest import mock

import pikepdf
from django.contrib.auth import get_user_model
from django.db.models import F
from PIL import Image

from drafting.tests.pdf_reading import areas
from server.common import pruning, storage
from server.jobs.models import Job
from server.jobs.runner import run
from server.projects.models import Project
from server.sheets import templates
from server.sheets.models import ShadedPicture, Viewport
from server.tests.test_plots import PlotCase

SHADED = {"show": "shaded"}
#: South of the tropics the noon sun is in the north: a south elevation is in its own shadow.
FROM_BEHIND = {"source": "sun", "month": 6, "day": 21, "hour": 12.0, "latitude": -40.0}


def pictures_in(pdf: bytes) -> list[tuple[int, int]]:
    """Width and height in pixels of every picture of the first page."""
    with pikepdf.open(io.BytesIO(pdf)) as opened:
        return [(int(image.Width), int(image.Height)) for image in opened.pages[0].images.values()]


class ShadingTests(PlotCase):
    def setUp(self) -> None:
        super().setUp()
        self.viewport = self.of_sheet(self.sheets[0])

    def of_sheet(self, sheet: str) -> Any:
        rows = self.call("get", f"viewports/?project={self.project}")
        return next(row for row in rows if str(row["sheet"]) == str(sheet))

    def change(self, status: int = 200, **to: Any) -> Any:
        """Change the viewport; as it is when what that orders is done."""
        version = self.of_sheet(self.sheets[0])["version"]
        self.call("patch", f"viewports/{self.viewport['id']}/", {"version": version, **to}, status)
        return self.of_sheet(self.sheets[0])

    def jobs(self) -> int:
        return Job.objects.filter(kind=Job.Kind.SHADE).count()

    def test_an_appearance_of_the_view_holds_in_its_viewports_that_have_none_of_their_own(self) -> None:
        own = self.change(appearance={"show": "colours"})
        other = self.of_sheet(self.sheets[1])
        self.assertIsNone(other["appearance"])
        view = self.call("get", f"views/{self.view}/")
        self.assertEqual(view["appearance"]["show"], "lines")
        self.call("patch", f"views/{self.view}/", {"appearance": SHADED, "version": view["version"]})
        lit = self.of_sheet(self.sheets[1])
        self.assertTrue(lit["wanted_picture"])
        self.assertEqual(lit["picture"]["key"], lit["wanted_picture"])
        self.assertEqual(self.of_sheet(self.sheets[0])["wanted_picture"], own["wanted_picture"])
        # As its view again, it has the same picture; lines of its own are lines.
        self.assertEqual(self.change(appearance=None)["wanted_picture"], lit["wanted_picture"])
        self.assertEqual(self.change(appearance={})["wanted_picture"], "")
        view = self.call("get", f"views/{self.view}/")
        self.call("patch", f"views/{self.view}/", {"appearance": {}, "version": view["version"]})
        self.assertEqual(self.of_sheet(self.sheets[1])["wanted_picture"], "")

    def shadow(self, sheet: int = 0) -> list[dict[str, Any]]:
        """What is drawn of shadow on a sheet."""
        items = self.call("get", f"sheets/{self.sheets[sheet]}/display/")["items"]
        return [item for item in items if item.get("layer") == "Shadows"]

    def test_shadow_is_drawn_as_areas_under_the_lines_and_plotted_as_such(self) -> None:
        filled = {"of": "both", "colour": "#334455", "opacity": 40}
        row = self.change(appearance={"light": FROM_BEHIND, "areas": filled})
        self.assertEqual((row["wanted_picture"], row["areas"]), ("", row["wanted_areas"]))
        found = self.shadow()
        self.assertTrue(found)
        self.assertEqual({(item["type"], item["colour"], item["opacity"]) for item in found},
                         {("fill", "#334455", 0.4)})  # fmt: skip
        items = self.call("get", f"sheets/{self.sheets[0]}/display/")["items"]
        kinds = [item["type"] for item in items if item.get("viewport") == row["id"]]
        self.assertLess(kinds.index("fill"), kinds.index("drawing"))
        jobs = self.jobs()
        hatched = self.change(appearance={"light": FROM_BEHIND, "areas": {"of": "both", "hatched": True}})
        self.assertEqual((hatched["wanted_areas"], self.jobs()), (row["wanted_areas"], jobs))
        self.assertEqual({item["type"] for item in self.shadow()}, {"hatch"})
        self.assertEqual(self.change(appearance={})["areas"], None)
        self.assertEqual(self.shadow(), [])

    def test_areas_that_are_not_made_yet_are_made_before_a_plot(self) -> None:
        filled = {"of": "both", "colour": "#334455"}
        row = self.change(appearance={"light": FROM_BEHIND, "areas": filled})
        Viewport.objects.filter(pk=row["id"]).update(traced=None)
        self.assertEqual(self.shadow(), [])
        _, file = self.plotted(self.project)
        wanted = tuple(round(int(pair, 16) / 255, 3) for pair in ("33", "44", "55"))
        self.assertIn(wanted, {tuple(round(c, 3) for c in area.colour) for area in areas(file)})

    def test_a_viewport_shows_lines_until_something_else_is_chosen(self) -> None:
        self.assertIsNone(self.viewport["appearance"])
        self.assertEqual((self.viewport["picture"], self.viewport["wanted_picture"]), (None, ""))
        self.assertEqual(self.jobs(), 0)

    def test_its_picture_is_made_and_can_be_fetched_by_those_of_the_project_alone(self) -> None:
        row = self.change(appearance=SHADED)
        self.assertEqual(row["picture"]["key"], row["wanted_picture"])
        self.assertAlmostEqual(row["picture"]["window"]["width"], row["width"])
        path = f"/api/shaded-pictures/{row['wanted_picture']}/"
        image = Image.open(io.BytesIO(b"".join(self.client.get(path).streaming_content)))
        self.assertAlmostEqual(image.width / image.height, row["width"] / row["height"], delta=0.02)
        self.assertEqual(image.getpixel((1, 1))[3], 0)
        self.client.force_login(get_user_model().objects.create_user("noor"))
        self.assertEqual(self.client.get(path).status_code, 404)

    def test_moved_on_its_sheet_it_has_the_same_picture_cropped_or_panned_another(self) -> None:
        first = self.change(appearance=SHADED)["wanted_picture"]
        self.assertEqual(self.change(x=self.viewport["x"] + 5)["wanted_picture"], first)
        self.assertEqual(self.jobs(), 1)
        panned = self.change(centre_u=self.viewport["centre_u"] + 100)["wanted_picture"]
        self.assertNotEqual(panned, first)
        # Back again, it is there already.
        self.change(centre_u=self.viewport["centre_u"])
        self.assertEqual(self.jobs(), 2)

    def test_a_picture_that_could_not_be_made_is_asked_for_again_with_any_change(self) -> None:
        wanted = self.change(appearance=SHADED)["wanted_picture"]
        Viewport.objects.update(shaded=None)
        ShadedPicture.objects.all().delete()
        self.assertEqual(self.change(x=self.viewport["x"] + 5)["picture"]["key"], wanted)

    def test_it_follows_its_view_and_the_building(self) -> None:
        first = self.change(appearance=SHADED)["wanted_picture"]
        view = self.call("get", f"views/{self.view}/")
        spec = {**view["spec"], "depth": 2000.0}
        self.call("patch", f"views/{self.view}/", {"spec": spec, "version": view["version"]})
        second = self.of_sheet(self.sheets[0])
        self.assertNotEqual(second["wanted_picture"], first)
        self.assertEqual(second["picture"]["key"], second["wanted_picture"])
        self.import_model(self.project, self.ifc(length=5600.0))
        # While the drawing is out of date, so is the picture: they are of one building.
        self.assertEqual(self.of_sheet(self.sheets[0])["wanted_picture"], second["wanted_picture"])
        self.call("post", f"views/{self.view}/draw/", {}, 202)
        third = self.of_sheet(self.sheets[0])
        self.assertNotEqual(third["wanted_picture"], second["wanted_picture"])
        self.assertEqual(third["picture"]["key"], third["wanted_picture"])

    def test_a_project_gives_materials_colours_of_its_own_and_every_picture_has_them(self) -> None:
        flat = {"show": "colours", "shadows": 0.0, "sky": 0.0}
        first = self.change(appearance=flat)["wanted_picture"]
        (version,) = self.call("get", f"model-versions/?project={self.project}")
        material = next(iter(version["facts"]["colours"]))
        register = self.call("get", f"registers/?project={self.project}")[0]
        path = f"registers/{register['id']}/"
        given = {"palette": {material: "#3080ff"}, "version": register["version"]}
        self.call("patch", path, given)
        row = self.of_sheet(self.sheets[0])
        self.assertNotEqual(row["wanted_picture"], first)
        self.assertEqual(row["picture"]["key"], row["wanted_picture"])
        stream = self.client.get(f"/api/shaded-pictures/{row['wanted_picture']}/").streaming_content
        image = Image.open(io.BytesIO(b"".join(stream)))
        self.assertIn((0x30, 0x80, 0xFF, 255), {color for _, color in image.getcolors(1 << 20)})
        by_layer = {"layer_palette": {"Layer of Wall": "#aa2020"}, "version": register["version"] + 1}
        self.call("patch", path, by_layer)
        self.assertNotIn(self.of_sheet(self.sheets[0])["wanted_picture"], (first, row["wanted_picture"]))
        wrong = {"layer_palette": {"Layer of Wall": "blue"}, "version": register["version"] + 2}
        self.assertIn("#b5651d", str(self.call("patch", path, wrong, 400)))

    def test_what_nobody_asks_for_any_more_is_not_made(self) -> None:
        with mock.patch("server.jobs.services.enqueue"):
            self.change(appearance=SHADED)
        job = Job.objects.get(kind=Job.Kind.SHADE)
        self.change(appearance={"show": "lines"})
        run(job)
        job.refresh_from_db()
        self.assertEqual(job.state, Job.State.DONE)
        self.assertFalse(ShadedPicture.objects.exists())

    def test_plotted_it_is_as_fine_as_the_plot_settings_say_and_no_larger_than_the_viewport(self) -> None:
        row = self.change(appearance=SHADED)
        for resolution in (150, 300):
            settings = self.settings(resolution=resolution)
            _, pdf = self.plotted(self.project, sheets=self.sheets[:1], settings=settings["id"])
            self.assertEqual(
                pictures_in(pdf),
                [(round(row["width"] * resolution / 25.4), round(row["height"] * resolution / 25.4))],
            )

    def test_one_that_changed_behind_a_plot_is_said_and_the_next_plot_has_it(self) -> None:
        self.change(appearance=SHADED)
        Viewport.objects.filter(pk=self.viewport["id"]).update(centre_u=F("centre_u") + 100)
        plot = self.call("post", "plots/", {"project": self.project, "sheets": self.sheets[:1]}, 202)
        job = self.call("get", f"jobs/{plot['job']['id']}/")
        self.assertEqual((job["state"], "Plot them again" in job["message"]), ("failed", True))
        _, pdf = self.plotted(self.project, sheets=self.sheets[:1])
        self.assertEqual(len(pictures_in(pdf)), 1)

    def test_a_picture_alone_has_no_lines_and_a_dxf_leaves_it_out_with_a_note(self) -> None:
        self.change(appearance=SHADED)
        _, both = self.plotted(self.project, sheets=self.sheets[:1])
        self.assertTrue(self.walls(both))
        plot, _ = self.plotted(self.project, sheets=self.sheets[:1], form="dxf")
        self.assertIn("A DXF holds no pictures of pixels", " ".join(plot["notes"]))
        self.change(appearance={"show": "picture"})
        _, alone = self.plotted(self.project, sheets=self.sheets[:1])
        self.assertEqual((self.walls(alone), len(pictures_in(alone))), ([], 1))

    def test_an_appearance_that_is_none_is_refused_with_its_field(self) -> None:
        for wrong in ({"show": "oil"}, {"shadows": 2}, {"light": {"month": 2, "day": 30}}, {"sun": 1}):
            with self.subTest(wrong):
                version = self.viewport["version"]
                answer = self.call(
                    "patch",
                    f"viewports/{self.viewport['id']}/",
                    {"appearance": wrong, "version": version},
                    400,
                )
                self.assertIn("appearance", str(answer))

    def test_a_picture_of_the_project_is_behind_it_and_none_of_another(self) -> None:
        red = io.BytesIO()
        Image.new("RGB", (40, 40), (255, 0, 0)).save(red, "PNG")
        behind = templates.add_picture(Project.objects.get(pk=self.project), "red.png", red.getvalue())
        appearance = {"show": "shaded", "background": "picture", "backdrop": str(behind.pk)}
        row = self.change(appearance=appearance)
        self.assertEqual(row["picture"]["notes"], [])
        with Image.open(storage.path_of(ShadedPicture.objects.get(key=row["wanted_picture"]).file)) as made:
            self.assertEqual(made.getpixel((0, 0)), (255, 0, 0, 255))
        other = Project.objects.create(name="Other", owner=Project.objects.get(pk=self.project).owner)
        theirs = templates.add_picture(other, "red.png", red.getvalue())
        row = self.change(appearance={**appearance, "backdrop": str(theirs.pk)})
        self.assertIn("behind the building is missing", row["picture"]["notes"][0])

    def test_a_sun_below_the_horizon_is_said_with_the_picture(self) -> None:
        night = {"source": "sun", "month": 12, "day": 21, "hour": 1.0, "latitude": 60.0}
        row = self.change(appearance={"show": "shaded", "light": night})
        self.assertIn("below the horizon", row["picture"]["notes"][0])

    def test_pictures_that_no_viewport_has_go_after_a_day_and_those_that_one_has_stay(self) -> None:
        self.change(appearance=SHADED)
        self.change(appearance={"show": "colours"})
        self.plotted(self.project, sheets=self.sheets[:1])
        kept = Viewport.objects.get(pk=self.viewport["id"]).shaded
        with (
            mock.patch("server.common.pruning.is_old", return_value=True),
            mock.patch("server.sheets.shading.is_old", return_value=True),
        ):
            pruning.prune()
        self.assertEqual(list(ShadedPicture.objects.all()), [kept])
        self.assertTrue(storage.path_of(kept.file).exists())
