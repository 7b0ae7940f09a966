"""What is worked out in processes beside the web process."""

from __future__ import annotations

import os
import signal
from unittest import TestCase

from server.common import beside


def in_process(number: int) -> tuple[int, int]:
    return number, os.getpid()


def refused() -> None:
    raise ValueError("there is no such sheet")


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
