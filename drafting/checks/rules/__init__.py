"""One rule a module; each has its RULE. A module that is put here is a rule that is checked."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import SEVERITIES, Finding, Rule, finding


@cache
def all_rules() -> tuple[Rule, ...]:
    """Every rule, those that matter most first."""
    rules = [import_module(f"{__name__}.{module.name}").RULE for module in iter_modules(__path__)]
    return tuple(sorted(rules, key=lambda rule: (SEVERITIES.index(rule.severity), rule.name)))


def check_set(
    checked: CheckedSet,
    rules: Sequence[Rule] | None = None,
    progress: Callable[[str, float], None] | None = None,
) -> list[Finding]:
    """What rules find in a set of sheets, in register order, what matters most first on each sheet."""
    rules = all_rules() if rules is None else rules
    found = []
    for k, rule in enumerate(rules):
        if progress:
            progress(rule.name, k / len(rules))
        found += [finding(rule, each) for each in rule.find(checked)]
    order = {sheet.id: k for k, sheet in enumerate(checked.sheets)}
    return sorted(found, key=lambda f: (order.get(f.sheet, len(order)), SEVERITIES.index(f.severity)))
