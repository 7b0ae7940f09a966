"""What the launcher makes of its own accord: which tests count as passed."""

from __future__ import annotations

import io
import sys
import tempfile
from contextlib import redirect_stdout
from importlib.machinery import SourceFileLoader
from importlib.util import module_from_spec, spec_from_loader
from pathlib import Path
from typing import Any
from unittest import TestCase
from unittest.mock import patch

from django.conf import settings

#: Tests that fail, pass, and fail the first time only, as a module in a folder of their own.
UNSTEADY = """
import unittest, pathlib

class Tests(unittest.TestCase):
    def test_first_time(self):
        note = pathlib.Path(__file__).with_name("seen")
        seen = note.exists()
        note.touch()
        self.assertTrue(seen)
"""


def launcher() -> Any:
    loader = SourceFileLoader("dunefold_launcher", str(Path(settings.ROOT) / "dunefold"))
    module = module_from_spec(spec_from_loader(loader.name, loader))  # type: ignore[arg-type]
    loader.exec_module(module)
    return module


class UnsteadyTests(TestCase):
    def setUp(self) -> None:
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        (self.folder / "once.py").write_text(UNSTEADY)
        self.list = self.folder / "unsteady.toml"
        self.list.write_text("")
        self.launcher = launcher()
        again = [sys.executable, "-m", "unittest", "once.Tests.test_first_time"]
        for name, value in (("UNSTEADY", self.list), ("ROOT", self.folder), ("manage", lambda *_: again)):
            self.enterContext(patch.object(self.launcher, name, value))

    def run_once(self) -> tuple[list[str], str]:
        """What has failed of a run in which one test passes the second time only, and what it said."""
        command = [sys.executable, "-m", "unittest", "once"]
        environment = {"DUNEFOLD_DATA": str(self.folder / "data"), "PATH": "/usr/bin:/bin"}
        with redirect_stdout(io.StringIO()) as said:
            failed = self.launcher.run_beside(command, 2, environment)
        return failed, said.getvalue()

    def test_what_passes_only_the_second_time_has_failed_and_is_named(self):
        failed, said = self.run_once()
        self.assertEqual(failed, ["once.Tests.test_first_time"])
        self.assertIn("Passed only the second time:\n  once.Tests.test_first_time", said)

    def test_it_has_passed_where_a_date_and_a_reason_are_given(self):
        self.list.write_text('["once.Tests.test_first_time"]\nsince = 2031-05-04\nreason = "a slow disk"\n')
        failed, said = self.run_once()
        self.assertEqual(failed, [])
        self.assertIn("excused since 2031-05-04, a slow disk", said)
