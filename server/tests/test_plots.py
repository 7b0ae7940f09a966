"""Plotting through the API: settings, files of every form, devices with their queues, and what they print."""

from __future__ import annotations

import io
import threading
import zipfile
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import ezdxf
import numpy as np
from django.db import connection

from drafting.tests.pdf_reading import page_labels, page_sizes, strokes, text
from server.jobs.models import Job
from server.plots import devices, services
from server.plots.models import Print
from server.styles.models import PlotSettings
from server.tests.api_case import ApiCase
from server.tests.committed_case import CommittedCase


class PlotCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.project_with_model()
        self.view = self.view_named(self.project, "South elevation")["id"]
        self.office, self.roll = (self.preset(PlotSettings, key) for key in ("office", "roll"))
        self.sheets = [self.add_sheet(title) for title in ("Ground floor", "Upper floor", "Roof")]

    def add_sheet(self, title: str, **given: Any) -> str:
        sheet = self.call("post", "sheets/", {"project": self.project, "title": title, **given}, 201)["id"]
        self.call("post", "viewports/", {"sheet": sheet, "view": self.view, "scale": "1:50"}, 201)
        return sheet

    def settings(self, status: int = 201, **spec: Any) -> Any:
        return self.call(
            "post", "plot-settings/", {"project": self.project, "name": "Ours", "spec": spec}, status
        )

    def walls(self, pdf: bytes) -> list[float]:
        """The widths of the walls that are drawn, mm."""
        return [float(np.ptp(s.points[:, 0])) for s in strokes(pdf) if s.layer == "Layer of Wall"]


class FileTests(PlotCase):
    def test_each_sheet_is_plotted_with_its_own_settings(self) -> None:
        self.call(
            "patch", f"sheets/{self.sheets[1]}/", {"paper": "A1", "plot_settings": self.office, "version": 1}
        )
        plot, pdf = self.plotted(self.project)
        np.testing.assert_allclose(page_sizes(pdf), [(420, 297)] * 3, atol=0.01)
        self.assertEqual(page_labels(pdf), ["A-01", "A-02", "A-03"])
        self.assertEqual([page["scale"] for page in plot["pages"]], [1, 0.5, 1])
        self.assertEqual(plot["pages"][1]["margins"], [5, 5, 5, 5])
        self.assertAlmostEqual(max(self.walls(pdf)), 100, delta=0.01)

    def test_settings_that_are_named_are_for_all_of_them(self) -> None:
        half = self.settings(reduction="percent", percent=50.0, paper="A4")
        plot, pdf = self.plotted(self.project, settings=half["id"], sheets=self.sheets[:1])
        np.testing.assert_allclose(page_sizes(pdf), [(297, 210)], atol=0.01)
        self.assertIn("1:50 at A3, printed at 50 %, 1:100", text(pdf))
        self.assertIn("A-01: Lettering is as small as", plot["notes"][0])

    def test_a_set_comes_as_dxf_svg_and_png(self) -> None:
        coarse = self.settings(resolution=72)["id"]
        plot, dxf = self.plotted(self.project, form="dxf")
        self.assertEqual(plot["file_name"], "Quay house.dxf")
        doc = ezdxf.read(io.StringIO(dxf.decode()))
        self.assertFalse(doc.audit().has_errors)
        self.assertEqual(doc.layout_names_in_taborder(), ["Model", "A-01", "A-02", "A-03"])
        for form in ("svg", "png"):
            plot, archive = self.plotted(self.project, form=form, settings=coarse)
            self.assertEqual(plot["file_name"], "Quay house.zip")
            with zipfile.ZipFile(io.BytesIO(archive)) as opened:
                self.assertEqual(opened.namelist()[0], f"01 A-01 Ground floor.{form}")
        plot, _ = self.plotted(self.project, form="png", settings=coarse, sheets=self.sheets[1:2])
        self.assertEqual(plot["file_name"], "Quay house A-02.png")

    def test_what_does_not_go_together_is_said_at_once_and_nothing_is_made(self) -> None:
        self.call("patch", f"sheets/{self.sheets[2]}/", {"paper": "A1", "version": 1})
        bad = self.settings(device="office", paper="")["id"]
        body = {"project": self.project, "settings": bad}
        (conflict,) = self.call("post", "plots/conflicts/", body)
        self.assertEqual(str(conflict["sheet"]), self.sheets[2])
        self.assertIn("holds A3 and A4, and no A1", conflict["message"])
        self.assertIn("A-03: The office printer", self.call("post", "plots/", body, 400)["detail"])
        self.assertIn("easel", self.call("post", "plots/", {**body, "settings": "easel"}, 400)["detail"])
        self.assertNotIn("plot", [job["kind"] for job in self.call("get", f"jobs/?project={self.project}")])

    def test_settings_that_no_plot_can_have_are_refused(self) -> None:
        self.assertIn("at most 400", self.settings(400, percent=900.0)["detail"])
        self.assertIn("“easel”", self.settings(400, device="easel")["detail"])

    def test_settings_that_sheets_have_are_not_deleted(self) -> None:
        made = self.settings(colours="black")
        self.call("patch", f"sheets/{self.sheets[0]}/", {"plot_settings": made["id"], "version": 1})
        self.assertIn("A-01", self.call("delete", f"plot-settings/{made['id']}/", status=400)["detail"])
        self.call("delete", f"plot-settings/{self.settings()['id']}/", status=204)

    def test_a_list_of_sheets_is_kept_and_comes_in_register_order(self) -> None:
        body = {
            "project": self.project,
            "name": "For the builder",
            "sheets": [self.sheets[2], self.sheets[0]],
        }
        kept = self.call("post", "sheet-lists/", body, 201)
        _, pdf = self.plotted(self.project, sheets=kept["sheets"])
        self.assertEqual(page_labels(pdf), ["A-01", "A-03"])


class DeviceTests(PlotCase):
    def send(self, settings: str = "", status: int = 202, **given: Any) -> Any:
        body = {"project": self.project, "settings": settings or self.office, **given}
        return self.call("post", "prints/", body, status)

    def prints(self) -> list[Any]:
        return self.call("get", f"prints/?project={self.project}")

    def turn(self, key: str, status: int = 200, **change: bool) -> Any:
        return self.call("post", f"devices/{key}/", change, status)

    def setUp(self) -> None:
        super().setUp()
        # They serve all projects, so that whoever keeps them from these administers the installation.
        self.administer(True)

    def administer(self, may: bool) -> None:
        self.user.is_staff = may
        self.user.save()

    def test_nobody_keeps_a_device_from_other_projects_but_who_administers_it(self) -> None:
        self.administer(False)
        for change in ({"online": False}, {"loaded": False}, {"online": True, "loaded": False}):
            said = self.turn("office", 403, **change)["detail"]
            self.assertIn("serves all projects", said)
        self.turn("office", online=True, loaded=True)

    def test_sheets_come_out_of_the_device_without_its_margins(self) -> None:
        self.send()
        (sent,) = self.prints()
        self.assertEqual((sent["state"], sent["count"], sent["printed"]), ("printed", 3, 3))
        out = b"".join(self.client.get(f"/api/prints/{sent['id']}/file/").streaming_content)
        self.assertEqual(len(page_sizes(out)), 3)
        self.assertEqual({s.colour for s in strokes(out)}, {(0.0, 0.0, 0.0)})
        office = next(d for d in self.call("get", "devices/") if d["key"] == "office")
        self.assertEqual(office["paper"], {"A3": 47, "A4": 50})

    def test_a_device_that_is_off_keeps_its_queue_and_goes_on_with_it_in_order(self) -> None:
        self.turn("office", online=False)
        self.send(sheets=self.sheets[:1])
        self.send(sheets=self.sheets[1:2])
        second, first = self.prints()
        self.assertEqual(
            (first["state"], first["message"]), ("queued", "The office printer is off. Switch it on.")
        )
        self.assertEqual((second["state"], second["message"]), ("queued", ""))
        self.call("get", f"prints/{first['id']}/file/", status=404)
        self.assertEqual(self.turn("office", online=True)["waiting"], 0)
        self.assertEqual({sent["state"] for sent in self.prints()}, {"printed"})

    def test_a_device_without_paper_says_so_and_goes_on_where_it_stopped(self) -> None:
        self.turn("office", loaded=False)
        self.send()
        (sent,) = self.prints()
        self.assertEqual(sent["message"], "There is no A3 paper left. Load the office printer.")
        state = self.turn("office", loaded=True)
        self.assertEqual((state["waiting"], state["paper"]["A3"]), (0, 47))

    def test_a_roll_gets_shorter_by_the_length_of_the_sheets(self) -> None:
        self.send(self.roll, sheets=self.sheets[:1])
        self.assertEqual(self.turn("roll")["paper"], {"roll": 45_000 - 420})

    def test_a_print_that_waits_is_taken_out_of_the_queue(self) -> None:
        self.turn("roll", online=False)
        (sent,) = self.send(self.roll)
        self.assertEqual(self.call("post", f"prints/{sent['id']}/cancel/")["state"], "cancelled")
        self.turn("roll", online=True)
        self.assertEqual(Print.objects.get().printed, 0)

    def test_a_print_that_is_cancelled_while_its_pages_are_made_never_comes_out(self) -> None:
        """The pages may be done just before the worker looks whether they are still wanted."""
        self.turn("roll", online=False)
        (sent,) = self.send(self.roll)
        row = Print.objects.get(pk=sent["id"])
        Print.objects.filter(pk=row.pk).update(state=Print.State.MAKING)
        Job.objects.filter(pk=row.plot_id).update(cancel_wanted=True)
        services._hand_over(row.plot)
        row.refresh_from_db()
        self.assertEqual(row.state, "cancelled")

    def test_a_print_that_was_made_since_it_was_looked_at_is_cancelled_all_the_same(self) -> None:
        self.turn("roll", online=False)
        (sent,) = self.send(self.roll)
        stale = Print.objects.get(pk=sent["id"])
        stale.state = Print.State.MAKING
        services.cancel_print(stale)
        self.assertEqual(Print.objects.get().state, "cancelled")

    def test_sheets_for_several_devices_are_sent_to_each(self) -> None:
        self.call("patch", f"sheets/{self.sheets[0]}/", {"plot_settings": self.roll, "version": 1})
        for sheet in self.sheets[1:]:
            self.call("patch", f"sheets/{sheet}/", {"plot_settings": self.office, "version": 1})
        sent = self.call("post", "prints/", {"project": self.project}, 202)
        self.assertEqual(
            {(p["device"], p["about"]) for p in sent}, {("roll", "A-01"), ("office", "2 sheets")}
        )

    def test_what_prints_on_no_device_is_said(self) -> None:
        self.assertIn(
            "A-01 is plotted to a file", self.send(self.preset(PlotSettings, "file"), 400)["detail"]
        )
        self.assertIn("no device “file”", self.call("post", "devices/file/", {"online": True}, 400)["detail"])

    def test_another_persons_prints_are_not_there(self) -> None:
        (sent,) = self.send(sheets=self.sheets[:1])
        self.client.logout()
        self.call("get", f"prints/{sent['id']}/file/", status=403)


class TogetherTests(CommittedCase):
    def test_what_two_do_to_a_device_at_once_holds_both(self) -> None:
        begin = threading.Barrier(2)

        def do(change: dict[str, bool]) -> None:
            begin.wait()
            devices.change("office", **change)
            connection.close()

        for on in (False, True, False, True):
            with ThreadPoolExecutor(2) as people:
                list(people.map(do, ({"online": on}, {"loaded": not on})))
            state = devices.state_of("office")
            self.assertEqual((state.online, state.paper["A3"] > 0), (on, not on))
