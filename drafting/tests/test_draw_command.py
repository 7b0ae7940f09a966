"""The command line: one view of a file, to every output."""

import contextlib
import io
import json
import tempfile
from pathlib import Path
from typing import get_args
from unittest import TestCase

import ezdxf
import numpy as np
from PIL import Image

from drafting.building.units import UNITS
from drafting.cli.draw import _parser, main
from drafting.plotting.colours import COLOUR_TREATMENTS
from drafting.plotting.settings import Resolution
from drafting.sheets.paper import Orientation
from drafting.styles.pen_presets import PEN_TABLE_PRESETS
from drafting.tests.ifc_files import write_ifc
from drafting.tests.pdf_reading import page_sizes, strokes, text


class CommandTests(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.file = str(write_ifc(self.folder / "house.ifc", unit="metre"))

    def run_command(self, *arguments):
        out, err = io.StringIO(), io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            try:
                code = main([self.file, *arguments])
            except SystemExit as stop:
                code = stop.code
        return code, out.getvalue(), err.getvalue()

    def test_a_pdf_at_a_named_scale_and_paper_measures_true(self):
        out = self.folder / "out.pdf"
        code, *_ = self.run_command(
            "--view", "elevation:south", "--scale", "1:33 1/3", "--paper", "A2", "-o", str(out)
        )
        self.assertEqual(code, 0)
        pdf = out.read_bytes()
        np.testing.assert_allclose(page_sizes(pdf), [(594, 420)], atol=0.01)
        spans = [np.ptp(s.points, axis=0) for s in strokes(pdf)]
        self.assertTrue(any(np.allclose(span, [150, 75], atol=0.01) for span in spans))
        self.assertIn("South elevation", text(pdf))

    def test_the_json_is_the_documented_format(self):
        out = self.folder / "out.json"
        self.assertEqual(self.run_command("--view", "plan:Deck@1000", "-o", str(out))[0], 0)
        drawing = json.loads(out.read_text())
        self.assertEqual(
            drawing["view"], {"right": [1, 0, 0], "up": [0, 1, 0], "toward": [0, 0, 1], "origin": [0, 0, 0]}
        )
        (line,) = drawing["lines"]
        self.assertEqual((line["role"], line["layer"], len(line["element"])), ("cut", "Layer of Wall", 22))
        self.assertEqual({p[2] for p in line["points"]}, {4000})
        (region,) = drawing["regions"]
        self.assertEqual(region["material"], "Stone")
        self.assertEqual(sorted(region["rings"][0]), [[1000, 0], [1000, 200], [6000, 0], [6000, 200]])

    def test_an_svg_is_written(self):
        out = self.folder / "out.svg"
        self.assertEqual(
            self.run_command("--view", "roof", "--orientation", "portrait", "-o", str(out))[0], 0
        )
        self.assertIn('width="297mm" height="420mm"', out.read_text())

    def test_a_dxf_and_a_png_are_drawn_with_the_pens_and_colours_that_are_asked_for(self):
        dxf, png, pdf = (self.folder / f"out.{form}" for form in ("dxf", "png", "pdf"))
        view = ("--view", "elevation:south", "--scale", "1:50", "--pens", "presentation")
        self.assertEqual(self.run_command(*view, "-o", str(dxf))[0], 0)
        doc = ezdxf.readfile(dxf)
        self.assertFalse(doc.audit().has_errors)
        self.assertEqual(doc.layers.get("Layer of Wall - profile").dxf.lineweight, 35)
        self.assertEqual(self.run_command(*view, "--resolution", "72", "-o", str(png))[0], 0)
        self.assertEqual(Image.open(png).size, (1190, 842))
        own = self.folder / "pens.json"
        own.write_text('{"roles": {"profile": {"width": 1.4, "colour": "#9c3f24"}}}')
        view = ("--view", "elevation:south", "--pens", str(own), "--colour", "black")
        self.assertEqual(self.run_command(*view, "-o", str(pdf))[0], 0)
        walls = [s for s in strokes(pdf.read_bytes()) if s.layer == "Layer of Wall"]
        self.assertEqual({(round(s.width, 3), s.colour) for s in walls}, {(1.4, (0.0, 0.0, 0.0))})
        own.write_text("{")
        self.assertIn("is no JSON file", self.run_command(*view, "-o", str(pdf))[2])
        self.assertIn("no pen table", self.run_command(*view[:2], "--pens", "ink", "-o", str(pdf))[2])

    def test_every_kind_of_view_and_option_draws(self):
        options = [
            "--crease",
            "30",
            "--seams",
            "--hidden",
            "--far",
            "2000",
            "--bands",
            "500,1500",
            "--depth",
            "4000",
        ]
        for view, more in (
            ("plan:0", ["--overhead", *options]),
            ("roof", ["--without-layer", "Nowhere"]),
            ("elevation:south", ["--near", "-100", *options]),
            ("elevation:200", options),
            ("section:0,100,2000,100,2000,150,9000,150", options),
            (
                "axonometric:30,40",
                ["--without-class", "IfcDoor", "--without-storey", "Roof", "--without", "x"],
            ),
            ("perspective:-9000,-9000,6000,1000,0,3000@40", ["--hidden"]),
            ("detail:0,3000,2000,5000:elevation:south", ["--near", "-100"]),
        ):
            with self.subTest(view):
                out = self.folder / "out.json"
                code, _, err = self.run_command("--view", view, *more, "-o", str(out))
                self.assertEqual(code, 0, err)
                self.assertTrue(json.loads(out.read_text())["lines"])

    def test_a_perspective_says_that_it_is_not_to_scale(self):
        out = self.folder / "out.pdf"
        self.run_command("--view", "perspective:-9000,-9000,6000,1000,0,3000", "-o", str(out))
        self.assertIn("Not to scale", text(out.read_bytes()))
        self.assertNotIn("1:", text(out.read_bytes()))

    def test_the_list_names_storeys_layers_and_counts(self):
        code, out, _ = self.run_command("--list")
        self.assertEqual(code, 0)
        for words in (
            "0  Deck  +3000 mm",
            "1  Layer of Wall",
            "1  IfcWall",
            "Axes turned by 0°, zero at 0, 0, 0",
        ):
            self.assertIn(words, out)

    def test_options_not_understood_exit_with_2_and_input_that_is_wrong_with_1(self):
        out = ["-o", str(self.folder / "out.pdf")]
        for arguments, wanted, why in (
            (["--view", "perspective:0,0,0", *out], 1, "eye and target"),
            (["--view", "roof", "--bands", "near", *out], 1, "“near”"),
            (["--view", "roof", "--crease", "0", *out], 1, "crease: give a number above 0"),
            (["--view", "roof", "--overhead", *out], 1, "Only a plan"),
            (["--view", "roof", "--up", "y", *out], 1, "z points up"),
            (["--view", "roof", "--unit", "yard", *out], 2, "yard"),
            (["--view", "elevation:up", *out], 1, "“up”"),
            (["--view", "plan:Attic", *out], 1, "“Attic”"),
            (["--view", "roof", "--scale", "0:1", *out], 1, "“0:1”"),
            (["--view", "roof", "--scale", "10:1", *out], 1, "does not fit A3"),
            (["--view", "roof", "--paper", "Q1", *out], 1, "“Q1”"),
            (["--view", "roof", "-o", "out.doc"], 2, "out.doc"),
            (["--view", "roof"], 2, "-o"),
        ):
            with self.subTest(arguments):
                code, _, err = self.run_command(*arguments)
                self.assertEqual(code, wanted)
                self.assertIn(why, err)
        self.assertFalse((self.folder / "out.pdf").exists())


class ChoiceTests(TestCase):
    def test_what_can_be_chosen_is_what_the_core_has(self):
        chosen = {
            action.dest: set(action.choices) for action in _parser()._actions if action.choices is not None
        }
        self.assertEqual(
            chosen,
            {
                "orientation": set(get_args(Orientation)),
                # To keep some colours is a matter of plot settings.
                "colour": set(COLOUR_TREATMENTS) - {"chosen"},
                "resolution": set(get_args(Resolution)),
                "unit": set(UNITS),
                "up": {"y", "z"},
            },
        )
        pens = next(a.help for a in _parser()._actions if a.dest == "pens")
        for key in PEN_TABLE_PRESETS:
            self.assertIn(key, pens)
