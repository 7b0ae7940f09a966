"""What the record of issues says: of each sheet, of a project, and as a register."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.utils import timezone

from drafting.issuing.register import IssueRegister, RegisterIssue, RegisterSheet
from server.issues.models import Issue, IssuedSheet
from server.projects.models import Project
from server.sheets.models import Sheet


def last_issued(project: Project) -> dict[str, tuple[str, str]]:
    """Of each sheet that was issued, by its id: the revision and the fingerprint that it had last."""
    rows = IssuedSheet.objects.filter(issue__project=project, sheet__isnull=False)
    values = rows.order_by("issue__number").values_list("sheet", "revision", "fingerprint")
    return {str(sheet): (revision, fingerprint) for sheet, revision, fingerprint in values}


def why_kept(project: Project) -> str:
    """Why a project cannot be deleted; blank where it can."""
    count = Issue.objects.filter(project=project).count()
    times = "once" if count == 1 else f"{count} times"
    sentence = (
        f"“{project.name}” has been issued {times}, and what was issued is kept. Archive the project instead."
    )
    return sentence if count else ""


def issue_columns(project: Project, count: int) -> tuple[list[tuple[str, str]], Mapping[str, list[str]]]:
    """Of the last so many issues: date and purpose of each, and by the id of each sheet the revision that it
    had in each; blank where it was not issued."""
    issues = list(Issue.objects.filter(project=project).order_by("-number")[:count])[::-1]
    place = {issue.pk: k for k, issue in enumerate(issues)}
    cells: dict[str, list[str]] = {}
    for sheet, issue, revision in IssuedSheet.objects.filter(issue__in=place).values_list(
        "sheet", "issue", "revision"
    ):
        cells.setdefault(str(sheet), [""] * len(issues))[place[issue]] = revision or "–"
    return [(issue.date, issue.purpose) for issue in issues], cells


def register_of_issues(project: Project) -> IssueRegister:
    """The register of a project: its sheets in their order, and after them those that are no more."""
    issues = list(Issue.objects.filter(project=project))
    place = {issue.pk: k for k, issue in enumerate(issues)}
    rows: dict[Any, tuple[str, str, str, list[str]]] = {
        sheet.pk: (sheet.number, sheet.title, sheet.revision, [""] * len(issues))
        for sheet in Sheet.objects.filter(project=project)
    }
    for each in IssuedSheet.objects.filter(issue__project=project).order_by("issue__number", "position"):
        key = each.sheet_id or f"gone {each.number}"
        row = rows.setdefault(key, (each.number, each.title, "", [""] * len(issues)))
        row[3][place[each.issue_id]] = each.revision or "–"
    return IssueRegister(
        f"{project.number} {project.name}".strip(),
        timezone.localdate().isoformat(),
        tuple(RegisterIssue(issue.name, issue.date, issue.purpose) for issue in issues),
        tuple(RegisterSheet(number, title, now, tuple(cells)) for number, title, now, cells in rows.values()),
    )
