"""How the tests are run: shared out among several processes, and with what the browser tests share."""

from __future__ import annotations

import os
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from unittest import TestCase, TestResult, TestSuite

from django.conf import settings
from django.test import LiveServerTestCase
from django.test.runner import DiscoverRunner

from e2e.shared import shared

#: Where processes that run the same tests at once note what each has taken: a folder; blank for one alone.
TAKEN = os.environ.get("DUNEFOLD_TESTS_TAKEN", "")
#: Passwords of tests need no second of work each to be kept.
QUICK = ["django.contrib.auth.hashers.MD5PasswordHasher"]


class SharedSuite(TestSuite):
    """Tests that one process runs, or several together: each takes what none has taken until all is taken.
    They take whole classes, which prepare something for all their tests, but browser tests one by one, and
    last for what the browser's driver and the web server leave behind in a process."""

    _cleanup = False
    _runs = False

    def __iter__(self) -> Iterator[Any]:
        if not self._runs:
            yield from super().__iter__()
            return
        together: dict[str, list[Any]] = {}
        for test in super().__iter__():
            together.setdefault(_taken_with(test), []).append(test)
        for name, tests in sorted(together.items(), key=lambda item: _is_last(item[1][0])):
            if _take(name):
                yield from tests

    def countTestCases(self) -> int:
        return len(self._tests)

    def run(self, result: TestResult, debug: bool = False) -> TestResult:
        self._runs = True
        return super().run(result, debug)


def _taken_with(test: TestCase) -> str:
    """The name of what a test is taken with."""
    in_browser = isinstance(test, LiveServerTestCase)
    return test.id() if in_browser else f"{type(test).__module__}.{type(test).__qualname__}"


def _is_last(test: TestCase) -> bool:
    return isinstance(test, LiveServerTestCase) or getattr(test, "with_browser", False)


def _take(name: str) -> bool:
    if not TAKEN:
        return True
    try:
        (Path(TAKEN) / name).touch(exist_ok=False)
    except FileExistsError:
        return False
    return True


class Runner(DiscoverRunner):
    """Django's, which shares its tests out, and ends what the browser tests share."""

    test_suite = SharedSuite

    def setup_test_environment(self, **given: Any) -> None:
        super().setup_test_environment(**given)
        settings.PASSWORD_HASHERS = QUICK

    def teardown_databases(self, old_config: Any, **given: Any) -> None:
        shared().end()
        super().teardown_databases(old_config, **given)
