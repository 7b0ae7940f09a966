"""Checking a set: when it has to be done again, what the core is given, and what is let stand."""

from __future__ import annotations

import hashlib
import json
import time
from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from typing import Any

from rest_framework import serializers

from drafting.checks.checked import (
    CheckedSet,
    CheckedSheet,
    CheckedView,
    CheckedViewport,
    Datum,
    UnansweredComment,
)
from drafting.checks.findings import SEVERITIES, Finding, Rule
from drafting.checks.rules import all_rules, check_set
from drafting.errors import DraftingError, SheetError
from drafting.issuing.frozen import fingerprint
from drafting.linework.codec import decode
from drafting.linework.model import Linework as CoreLinework
from drafting.plotting.devices import BY_KEY
from drafting.plotting.pages import page_for
from drafting.render.backend import Sources
from drafting.schema import dump
from server.annotations.models import Annotation, AnnotationStyle, LibrarySymbol, NoteOfList, TableFile
from server.buildings.models import ModelVersion, newest_version
from server.checks.models import CheckRules, CheckRun, Waiver
from server.common import storage
from server.common.readable import readable
from server.common.rows import Memo, RowService
from server.jobs import services as jobs
from server.jobs.child import Cancelled
from server.jobs.models import Job
from server.jobs.runner import Work
from server.projects.models import Project
from server.sheets.composing import building_on_paper, composed, viewports_of
from server.sheets.models import Register, Sheet, Template, Viewport
from server.sheets.services import number_warnings
from server.sheets.whole_set import WholeSet
from server.styles.models import PenTable, PlotSettings
from server.touchups.models import TouchUp
from server.views.drawings import state_of
from server.views.models import Linework, View

#: Raised whenever rules find something else in the same set.
RULES_VERSION = 2
OFF = "off"
CHOICES = (*SEVERITIES, OFF)


IssuedOf = Callable[[Project], Mapping[str, tuple[str, str]]]
_issued: list[IssuedOf] = []


def register_issued(source: IssuedOf) -> None:
    """Say what was issued: `source` gives, by the id of each sheet that was, the revision and the fingerprint
    that it had last."""
    _issued.append(source)


UnansweredIn = Callable[[Project], Sequence[UnansweredComment]]
_comments: list[UnansweredIn] = []


def register_comments(source: UnansweredIn) -> None:
    """Say what was said of a project's sheets and waits for an answer."""
    _comments.append(source)


Checked = Callable[[Project, Sequence[CheckedSheet]], None]
_checked_by: list[Checked] = []


def register_checked(handler: Checked) -> None:
    """Have sheets handed on whenever a set is checked, composed as they are."""
    _checked_by.append(handler)


class WaiverService(RowService[Waiver]):
    model = Waiver

    def check(self, row: Waiver, changed: set[str], memo: Memo) -> None:
        if not row.reason.strip():
            raise serializers.ValidationError({"reason": "Say why it is let stand."})
        other = Waiver.objects.filter(project=row.project, finding=row.finding).exclude(pk=row.pk)
        if other.exists():
            raise serializers.ValidationError({"finding": "This finding is let stand already."})


class CheckRulesService(RowService[CheckRules]):
    model = CheckRules

    def check(self, row: CheckRules, changed: set[str], memo: Memo) -> None:
        keys = {rule.key for rule in all_rules()}
        for key, choice in row.choices.items():
            if key not in keys:
                raise SheetError(f"There is no rule “{key}”. Leave it out.")
            if choice not in CHOICES:
                raise SheetError(f"“{choice}” is none of {', '.join(CHOICES)}.")
        known = {f"{rule.key}.{limit.key}": limit for rule in all_rules() for limit in rule.limits}
        for key, value in row.limits.items():
            if key not in known:
                raise SheetError(f"There is no limit “{key}”. Leave it out.")
            limit = known[key]
            if not limit.least <= value <= limit.most:
                raise SheetError(f"{limit.name}: give a figure from {limit.least:g} to {limit.most:g}.")


waiver_service, check_rules_service = WaiverService(), CheckRulesService()


def rules_of(project: Project) -> CheckRules:
    """Which rules a project checks."""
    return CheckRules.objects.get_or_create(project=project)[0]


def state_of_set(project: Project) -> str:
    """A hash of all that findings depend on; cheap, so that it can be asked often."""
    newest = newest_version(project)

    def rows(model: Any, *fields: str, to_project: str = "project") -> list[Any]:
        found = model.objects.filter(**{to_project: project}).order_by("pk")
        return list(found.values_list("pk", "version", *fields))

    parts: list[Any] = [
        RULES_VERSION,
        project.version,
        newest.number if newest else 0,
        list(CheckRules.objects.filter(project=project).values_list("version")),
        *(rows(model) for model in (Register, Sheet, Annotation, TouchUp, Template, PenTable, PlotSettings)),
        *(rows(model) for model in (NoteOfList, AnnotationStyle, LibrarySymbol)),
        list(TableFile.objects.filter(project=project).order_by("pk").values_list("pk", "file")),
        rows(View, "linework", "wanted", "held"),
        rows(Viewport, "linework", "wanted", "traced", to_project="sheet__project"),
        _issued_of(project),
        _unanswered_in(project),
    ]
    return hashlib.sha256(json.dumps(parts, default=str).encode()).hexdigest()


def order_check(project: Project) -> Job:
    """Have the set checked; where that is about to be done already, by the job that does it."""
    rules_of(project)
    waiting = Job.objects.filter(
        project=project, kind=Job.Kind.CHECK, state=Job.State.WAITING, cancel_wanted=False
    ).first()
    return waiting or jobs.start(project, Job.Kind.CHECK, "the set", str(project.pk))


def check(job: Job, work: Work) -> None:
    """Check the set of a job."""
    project, begun = job.project, time.monotonic()
    state = state_of_set(project)
    rules = _chosen(rules_of(project))
    try:
        looked_at = checked_set(project, work)
    except Exception:
        # Rows went while they were looked at: whoever changes a set has it checked again.
        if state_of_set(project) != state:
            raise Cancelled from None
        raise
    found = check_set(looked_at, rules, work.step)
    CheckRun.objects.update_or_create(
        project=project,
        defaults={
            "state": state,
            "findings": dump(found, list[Finding]),
            "seconds": time.monotonic() - begun,
            "fingerprints": {sheet.id: sheet.fingerprint for sheet in looked_at.sheets},
        },
    )
    for handler in _checked_by:
        handler(project, looked_at.sheets)


def standing_errors(
    project: Project, looked_at: CheckedSet, sheets: Collection[str], work: Work
) -> list[Finding]:
    """What is wrong with some sheets of a set, or with the whole of it, of the highest severity, and has not
    been waived."""
    waived = set(Waiver.objects.filter(project=project).values_list("finding", flat=True))
    found = check_set(looked_at, _chosen(rules_of(project)), work.step)
    return [
        each
        for each in found
        if each.severity == SEVERITIES[0]
        and each.key not in waived
        and (not each.sheet or each.sheet in sheets)
    ]


def _issued_of(project: Project) -> dict[str, tuple[str, str]]:
    found: dict[str, tuple[str, str]] = {}
    for source in _issued:
        found.update(source(project))
    return found


def _unanswered_in(project: Project) -> tuple[UnansweredComment, ...]:
    return tuple(comment for source in _comments for comment in source(project))


def _chosen(row: CheckRules) -> list[Rule]:
    """The rules that are on, each as much as the project says."""
    chosen = []
    for rule in all_rules():
        choice = row.choices.get(rule.key, rule.severity)
        if choice in SEVERITIES:
            chosen.append(replace(rule, severity=choice))
    return chosen


def checked_set(project: Project, work: Work | None = None) -> CheckedSet:
    """A project's set as the core's rules look at it."""
    whole = WholeSet.of(project)
    warnings, issued = number_warnings(project), _issued_of(project)
    rows = list(Sheet.objects.filter(project=project).select_related("project", "template", "plot_settings"))
    versions = ModelVersion.objects.filter(project=project)
    datums = {pk: _datum(facts) for pk, facts in versions.values_list("pk", "facts")}
    sheets, uncomposed = [], []
    for k, row in enumerate(rows):
        if work is not None:
            work.step(f"Composing {row.number}", k / len(rows))
        last = issued.get(str(row.pk), ("", ""))
        try:
            sheets.append(_checked(row, whole, warnings.get(row.pk, ""), last, datums))
        except DraftingError as error:
            # Something of it was damaged; the others are checked all the same.
            uncomposed.append((str(row.pk), str(error)))
    newest = newest_version(project)
    places: dict[Any, int] = {}
    for view in Viewport.objects.filter(sheet__project=project).values_list("view", flat=True):
        places[view] = places.get(view, 0) + 1
    return CheckedSet(
        tuple(sheets),
        tuple(
            CheckedView(str(view.pk), view.name, spec, places.get(view.pk, 0))
            for view, spec in readable(View.objects.filter(project=project), lambda view: view.as_core)
        ),
        tuple(name for name, _ in whole.storeys),
        tuple(newest.facts.get("failed", ())) if newest else (),
        rules_of(project).limits,
        _datum(newest.facts) if newest else Datum(),
        _unanswered_in(project),
        bool(newest.facts.get("has_ground", True)) if newest else True,
        tuple(uncomposed),
    )


def _datum(facts: dict[str, Any]) -> Datum:
    levels = tuple((storey["name"], storey["elevation"]) for storey in facts.get("storeys", ()))
    return Datum(levels, facts.get("true_north"))


def _checked(
    row: Sheet, whole: WholeSet, warning: str, issued: tuple[str, str], datums: Mapping[Any, Datum]
) -> CheckedSheet:
    sheet, display = composed(row, whole)
    settings = row.plot_settings.as_core
    try:
        page, why_not = page_for(sheet, display, settings), ""
    except DraftingError as error:
        page, why_not = None, str(error)
    viewports = tuple(
        CheckedViewport(
            placed,
            str(viewport.view_id),
            state_of(viewport.drawn, viewport.view),
            building_on_paper(viewport, placed),
            datums.get(viewport.drawn.drawn_from_id),
        )
        for viewport, placed in zip(viewports_of(row, whole), sheet.viewports, strict=True)
    )
    return CheckedSheet(
        str(row.pk),
        sheet,
        display,
        viewports,
        template=str(row.template_id),
        pens=str(row.pen_table_id or whole.register.pen_table_id),
        series=row.discipline,
        number_warning=warning,
        device=BY_KEY[settings.device],
        page=page,
        why_not=why_not,
        fingerprint=fingerprint(sheet, display),
        issued=issued,
        sources=Sources(_linework),
    )


def _linework(key: str) -> CoreLinework:
    return _decoded(Linework.objects.values_list("file", flat=True).get(key=key))


@lru_cache(maxsize=64)
def _decoded(file: str) -> CoreLinework:
    """A stored drawing by its hash, so that what was read once is never stale."""
    return decode(storage.path_of(file).read_bytes())
