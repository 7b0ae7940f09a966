"""A project's own pen tables."""

from __future__ import annotations

from django.db import models

from drafting.plot.pen_table import PenTable as CorePenTable
from server.projects.named import NamedRow


class PenTable(NamedRow):
    """A pen table of a project's own; those that ship are the core's data, and no rows."""

    #: The core's PenTable as plain data, but for its name.
    spec = models.JSONField()

    @property
    def as_core(self) -> CorePenTable:
        return CorePenTable.from_dict({**self.spec, "name": self.name})
