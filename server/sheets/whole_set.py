"""What the sheets of a project say of each other and of the building; the same for all of them."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from itertools import groupby
from typing import Any, TypeVar

import numpy as np

from drafting.building.climbs import Climb, climb_from
from drafting.building.openings import Opening
from drafting.building.rooms import Room, room_from
from drafting.errors import SheetError
from drafting.sheets.picture import Picture
from drafting.sheets.reference_marks import Reference, Subject
from drafting.sheets.template import TemplateSpec
from drafting.styles.pen_table import PenTableSpec
from server.buildings.models import newest_version
from server.common.readable import name_of, readable, why_not
from server.projects.models import Project
from server.sheets.models import Register, Sheet, Viewport
from server.sheets.services import register_as_it_is
from server.sheets.templates import pictures_of, templates_of
from server.styles.services import pen_tables_of
from server.views.models import View

R = TypeVar("R")
T = TypeVar("T")
GridLine = tuple[str, tuple[float, float], tuple[float, float]]


@dataclass(frozen=True)
class WholeSet:
    """What the sheets of a project say of each other and of the building; the same for all of them.

    Attributes:
        order: ids of the sheets, in register order.
        register: what holds for all sheets.
        subjects: the views that are marked on others.
        storeys: name and elevation (mm) of each.
        true_north: degrees from the model's y axis, if the model says it.
        grid: name and ends (mm) of each line of the building's grid.
        rooms, climbs, openings: the rooms of the building, its flights and ramps, its doors and windows.
        templates: by their ids.
        pictures: by what templates call them.
        pens: pen tables, by their ids.
        memo: what sources of pieces look up once for the whole set, each by a name of its own.
        unreadable: by the ids of sheets, sentences about what stands on them but cannot be read.
    """

    order: tuple[Any, ...]
    register: Register
    subjects: tuple[Subject, ...]
    storeys: tuple[tuple[str, float], ...]
    true_north: float | None
    grid: tuple[GridLine, ...]
    rooms: tuple[Room, ...]
    climbs: tuple[Climb, ...]
    openings: tuple[Opening, ...]
    templates: Mapping[Any, TemplateSpec]
    pictures: Mapping[str, Picture]
    pens: Mapping[str, PenTableSpec]
    memo: dict[str, Any] = field(default_factory=dict, compare=False)
    unreadable: dict[Any, list[str]] = field(default_factory=dict, compare=False)

    def readable(self, sheet: Sheet, rows: Iterable[R], read: Callable[[R], T]) -> Iterator[tuple[R, T]]:
        """What stands on a sheet, each with what `read` makes of it, without what cannot be read: of that it
        is noted that the sheet is composed without it."""

        def leave_out(row: Any, error: Exception) -> None:
            name = name_of(row)
            self._note(sheet, f"{name[:1].upper()}{name[1:]} cannot be read: {why_not(error)}")

        return readable(rows, read, leave_out)

    def _note(self, sheet: Sheet, sentence: str) -> None:
        self.unreadable.setdefault(sheet.pk, []).append(sentence)

    def check_pens(self, sheet: Sheet, row: Viewport) -> None:
        """Note where the pen table of a viewport cannot be read: it is drawn with its sheet's."""
        if row.pen_table_id and str(row.pen_table_id) not in self.pens:
            self._note(sheet, f"The pen table of {name_of(row)} cannot be read: its sheet's is taken.")

    def template_of(self, sheet: Sheet) -> TemplateSpec:
        """The template of a sheet.

        Raises:
            SheetError: it cannot be read.
        """
        found = self.templates.get(sheet.template_id)
        if found is None:
            name = sheet.template.name
            raise SheetError(f"The template “{name}” cannot be read. Give {sheet.number} another template.")
        return found

    def pens_of(self, sheet: Sheet) -> PenTableSpec:
        """The pen table that a sheet is drawn with.

        Raises:
            SheetError: it cannot be read.
        """
        found = self.pens.get(str(sheet.pen_table_id or self.register.pen_table_id))
        if found is None:
            name = (sheet.pen_table or self.register.pen_table).name
            raise SheetError(f"The pen table “{name}” cannot be read. Draw {sheet.number} with another.")
        return found

    @classmethod
    def of(cls, project: Project) -> WholeSet:
        newest = newest_version(project)
        facts = newest.facts if newest else {}
        return cls(
            tuple(Sheet.objects.filter(project=project).values_list("pk", flat=True)),
            register_as_it_is(project),
            tuple(subjects_of(project)),
            tuple((storey["name"], storey["elevation"]) for storey in facts.get("storeys", [])),
            facts.get("true_north"),
            tuple(
                (line["name"], tuple(line["ends"][0]), tuple(line["ends"][1]))
                for line in facts.get("grid", [])
            ),
            tuple(room_from(room) for room in facts.get("rooms", [])),
            tuple(climb_from(climb) for climb in facts.get("climbs", [])),
            tuple(Opening(**opening) for opening in facts.get("openings", [])),
            templates_of(project),
            pictures_of(project),
            pen_tables_of(project),
        )


def subjects_of(project: Project) -> list[Subject]:
    """The views of a project that are marked on others, with where they first stand in the register."""
    references: dict[Any, Reference] = {}
    placed = Viewport.objects.filter(sheet__project=project).order_by(
        "sheet__position", "sheet__number", "sheet", "position", "id"
    )
    rows = placed.values_list("sheet", "sheet__number", "view")
    for _, group in groupby(rows, key=lambda row: row[0]):
        for number, (_, sheet, viewed) in enumerate(group, 1):
            references.setdefault(viewed, Reference(str(number), sheet))
    views = View.objects.filter(project=project, linework__isnull=False).select_related("linework")
    subjects = []
    for view, spec in readable(views, lambda view: view.as_core):
        if spec.marked and view.linework and view.linework.axes:
            axes = view.linework.axes
            x, y, z = np.cross(axes["right"], axes["up"]).tolist()
            subjects.append(Subject(str(view.pk), spec, (x, y, z), references.get(view.pk, Reference())))
    return subjects
