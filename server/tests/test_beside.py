"""What is worked out in processes beside the web process."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from pathlib import Path
from unittest import TestCase

from django.conf import settings

from server.common import beside


def in_process(number: int) -> tuple[int, int]:
    return number, os.getpid()


def refused() -> None:
    raise ValueError("there is no such sheet")


#: A launcher that has one part, tells its number, and is then killed.
LAUNCHER = """
import os, subprocess, sys, time
given = {**os.environ, "DUNEFOLD_LAUNCHER": str(os.getpid())}
part = "from server.common.beside import end_with_launcher as end; end(); import time; time.sleep(60)"
print(subprocess.Popen([sys.executable, "-c", part], env=given).pid, flush=True)
time.sleep(60)
"""


def is_running(process: int) -> bool:
    try:
        return "(zombie)" not in Path(f"/proc/{process}/status").read_text()
    except OSError:
        return False


class LauncherTests(TestCase):
    def test_a_part_ends_when_its_launcher_is_killed(self):
        command = [sys.executable, "-c", LAUNCHER]
        with subprocess.Popen(command, stdout=subprocess.PIPE, text=True, cwd=settings.ROOT) as launcher:
            assert launcher.stdout is not None
            part = int(launcher.stdout.readline())
            time.sleep(2 * beside.LOOK_EVERY)
            self.assertTrue(is_running(part))
            launcher.kill()
        end = time.monotonic() + 60
        while is_running(part):
            self.assertLess(time.monotonic(), end)
            time.sleep(0.05)


class BesideTests(TestCase):
    def setUp(self) -> None:
        self.addCleanup(beside.stop)

    def test_until_there_are_processes_all_is_worked_out_in_this_one(self):
        self.assertEqual(beside.worked_out(in_process, 3), (3, os.getpid()))

    def test_it_is_worked_out_elsewhere_and_what_is_refused_is_refused_here(self):
        beside.start()
        number, process = beside.worked_out(in_process, 3)
        self.assertEqual(number, 3)
        self.assertNotEqual(process, os.getpid())
        with self.assertRaisesRegex(ValueError, "no such sheet"):
            beside.worked_out(refused)

    def test_when_they_are_killed_nobody_goes_without_and_others_take_their_place(self):
        beside.start()
        _, process = beside.worked_out(in_process, 1)
        os.kill(process, signal.SIGKILL)
        # Until it is noticed, one that is left may still answer.
        processes = [beside.worked_out(in_process, k) for k in range(200)]
        self.assertEqual([number for number, _ in processes], list(range(200)))
        self.assertNotIn(beside.worked_out(in_process, 1)[1], (process, os.getpid()))
