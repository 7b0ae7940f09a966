"""Making, changing and numbering sheets."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from django.db.models import F, Max, QuerySet
from rest_framework import serializers

from drafting.errors import SheetError
from drafting.sheets import numbering
from drafting.sheets.numbering import Numbered, Numbering, Pattern
from drafting.sheets.paper import Paper
from drafting.sheets.template import check_blank
from server.common.rows import Memo, RowService
from server.projects.models import NamedRow, Project
from server.sheets.models import DISCIPLINE, Register, Sheet


class SheetService(RowService[Sheet]):
    model = Sheet

    def prepare(self, values: dict[str, Any], memo: Memo) -> None:
        project = values["project"]
        kind = values.get("discipline", DISCIPLINE), values.get("sheet_type", "")
        key = ("numbering", project.pk)
        if key not in memo:
            rows = Sheet.objects.filter(project=project)
            there = (Numbered(*row) for row in rows.values_list("number", "discipline", "sheet_type"))
            memo[key] = Numbering(Pattern(register_of(project).number_pattern), there)
            memo["position", project.pk] = next_position(rows)
        if "number" not in values:
            values["number"] = memo[key].next(Numbered("", *kind))
        memo[key].add(Numbered(values["number"], *kind))
        if "position" not in values:
            values["position"] = memo["position", project.pk]
            memo["position", project.pk] += 1

    def check(self, row: Sheet, changed: set[str], memo: Memo) -> None:
        if {"template", "paper", "orientation"} & changed:
            check_blank(row.blank, row.template.name)
        if "number" in changed:
            self._check_number(row, memo)

    def _check_number(self, row: Sheet, memo: Memo) -> None:
        key = ("numbers", row.project_id)
        if key not in memo:
            memo[key] = set(_numbers(row.project_id).values_list("number", flat=True))
        if row.number in memo[key]:
            # It was there at first, or has come since: it may be gone again.
            others = _numbers(row.project_id).filter(number=row.number).exclude(pk=row.pk)
            for title in others.values_list("title", flat=True):
                name = f" “{title}”" if title else ""
                raise serializers.ValidationError(
                    {"number": f"{row.number} is the number of another sheet{name}. Choose another number."}
                )
        memo[key].add(row.number)

    def updated(self, row: Sheet, before: Sheet, changed: set[str], memo: Memo) -> None:
        # On another paper its viewports keep their place from the title block's corner.
        by = row.as_paper.width - before.as_paper.width
        if by:
            row.viewports.update(x=F("x") + by, version=F("version") + 1)


sheet_service = SheetService()


def _numbers(project: Any) -> QuerySet[Sheet]:
    """The sheets of a project, in no order."""
    return Sheet.objects.filter(project=project).order_by()


def register_of(project: Project) -> Register:
    """The register of a project."""
    return Register.objects.get_or_create(project=project)[0]


def register_as_it_is(project: Project) -> Register:
    """The register of a project for whoever only reads: one that is not made yet is as new."""
    return Register.objects.filter(project=project).first() or Register(project=project)


def release_numbers(sheets: Iterable[Any]) -> None:
    """Take their numbers from sheets that are about to be given others, so that two can change theirs with
    each other in one batch."""
    for pk in sheets:
        Sheet.objects.filter(pk=pk).update(number=f"\x00{pk}")


def users_of_style(row: NamedRow) -> list[str]:
    """What has a pen table or plot settings, in words."""
    inside = getattr(row, "viewports", None)
    registers = getattr(row, "registers", None)
    users = ["the whole set"] if registers is not None and registers.exists() else []
    sheets: QuerySet[Sheet] = row.sheets  # type: ignore[attr-defined]
    users += [sheet.number for sheet in sheets.all()]
    viewports = inside.select_related("sheet") if inside is not None else ()
    return users + [f"a viewport on {viewport.sheet.number}" for viewport in viewports]


def numbered(sheet: Sheet) -> Numbered:
    """A sheet as the core numbers it."""
    return Numbered(sheet.number, sheet.discipline, sheet.sheet_type)


def numbers_from(sheet: Sheet) -> list[tuple[Sheet, str]]:
    """The sheets from one on in the register, with their numbers counted on from its own.

    Raises:
        SheetError: its number has no figure to count on from, or a sheet before it has one of the numbers.
    """
    order = list(Sheet.objects.filter(project=sheet.project))
    place = [other.pk for other in order].index(sheet.pk)
    pattern = Pattern(register_of(sheet.project).number_pattern)
    numbers = numbering.numbers_from(pattern, [numbered(s) for s in order[place:]])
    before = {other.number for other in order[:place]}
    taken = next((number for number in numbers if number in before), None)
    if taken:
        raise SheetError(f"{taken} is the number of a sheet before this one. Number on from that one.")
    return list(zip(order[place:], numbers, strict=True))


def number_warnings(project: Project) -> dict[Any, str]:
    """What is odd about the numbers of a project's sheets, by the sheet's id."""
    order: Sequence[Sheet] = list(Sheet.objects.filter(project=project))
    pattern = Pattern(register_of(project).number_pattern)
    found = numbering.number_warnings(pattern, [numbered(s) for s in order])
    return {sheet.pk: warning for sheet, warning in zip(order, found, strict=True) if warning}


def next_position(rows: Any) -> int:
    """The position after the last of some rows."""
    last = rows.aggregate(last=Max("position"))["last"]
    return 0 if last is None else last + 1


def paper_named(name: str) -> str:
    """The name of a paper size as it is written.

    Raises:
        PaperError: there is none of this name.
    """
    return Paper.of(name).name
