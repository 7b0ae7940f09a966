"""The examples in the core's docstrings hold."""

import doctest
import pkgutil
from importlib import import_module
from unittest import TestSuite

import drafting


def load_tests(_loader, tests, _pattern):
    found = TestSuite()
    for module in pkgutil.walk_packages(drafting.__path__, "drafting."):
        if ".tests" not in module.name:
            found.addTests(doctest.DocTestSuite(import_module(module.name)))
    tests.addTests(found)
    return tests
