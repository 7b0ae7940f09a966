"""Which pen tables there are to draw with."""

from __future__ import annotations

from drafting.errors import SheetError
from drafting.plot.pen_table import PenTable as CorePenTable
from drafting.plot.shipped_pens import SHIPPED
from server.pens.models import PenTable
from server.projects.models import Project


def pen_tables_of(project: Project) -> dict[str, CorePenTable]:
    """All that a project can draw with, by what its rows call them."""
    return {**SHIPPED, **{str(row.pk): row.as_core for row in PenTable.objects.filter(project=project)}}


def check_pen_table(project: Project, key: str) -> None:
    """Refuse the name of a pen table that there is none of; blank is that of what it is on.

    Raises:
        SheetError: there is none.
    """
    if key and key not in pen_tables_of(project):
        raise SheetError("There is no such pen table. Choose another one.")
