"""`dunefold plot`: sheets of a project to a file, from the command line."""

from __future__ import annotations

import io
from pathlib import Path

from django.core.management import CommandError, call_command

from drafting.tests.pdf_reading import page_labels, page_sizes
from server.plots.models import SheetList
from server.sheets.models import Sheet
from server.tests.api_case import ApiCase


class PlotCommandTests(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.make_project("Quay house")
        for _ in range(4):
            self.call("post", "sheets/", {"project": self.project}, 201)

    def plot(self, *arguments: str, name: str = "set.pdf", project: str = "Quay house") -> tuple[Path, str]:
        out, said = self.data / name, io.StringIO()
        with self.captureOnCommitCallbacks():
            call_command("plot", project, *arguments, "-o", str(out), stdout=said, stderr=said)
        return out, said.getvalue()

    def test_a_set_is_plotted_and_said(self) -> None:
        out, said = self.plot()
        self.assertEqual(page_labels(out.read_bytes()), ["A-01", "A-02", "A-03", "A-04"])
        self.assertIn("set.pdf: 4 sheets", said)

    def test_numbers_and_ranges_come_in_register_order(self) -> None:
        out, _ = self.plot("--sheets", "A-04,A-01..A-02", project=self.project)
        self.assertEqual(page_labels(out.read_bytes()), ["A-01", "A-02", "A-04"])

    def test_a_list_and_plot_settings_are_named(self) -> None:
        chosen = SheetList.objects.create(project_id=self.project, name="For the builder")
        chosen.sheets.set(Sheet.objects.filter(number="A-03"))
        out, _ = self.plot("--list", "For the builder", "--with", "Roll plotter, full size")
        self.assertEqual(len(page_sizes(out.read_bytes())), 1)

    def test_several_pictures_come_as_one_archive(self) -> None:
        out, _ = self.plot("--form", "svg", name="set.zip")
        self.assertTrue(out.read_bytes().startswith(b"PK"))

    def test_what_is_not_there_is_named_with_what_is(self) -> None:
        for arguments, given, why in (
            ((), {"project": "Harbour"}, "no project “Harbour”. Projects here: “Quay house”"),
            (("--sheets", "A-09"), {}, "no sheet “A-09”. Sheets are A-01"),
            (("--list", "Mine"), {}, "no list “Mine”"),
            (("--with", "Easel"), {}, "no plot settings “Easel”. There are “Check print, A3 to fit”"),
            ((), {"name": "set.doc"}, "is to end in .pdf, .dxf, .svg, .png, .zip"),
        ):
            with self.subTest(why), self.assertRaisesMessage(CommandError, why):
                self.plot(*arguments, **given)
        self.assertEqual(list(self.data.glob("set.*")), [])
