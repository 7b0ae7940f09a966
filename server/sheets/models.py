"""Sheets and the viewports on them."""

from __future__ import annotations

import uuid
from fractions import Fraction

from django.db import models

from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from server.buildings.models import ModelVersion
from server.config.versioned import VersionedModel
from server.projects.models import Project
from server.views.models import Linework, View


def no_shift() -> list[float]:
    return [0.0, 0.0]


class Sheet(VersionedModel):
    """A page of the set. What its title block says beyond these fields is the project's, or derived."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    project = models.ForeignKey(Project, models.CASCADE, related_name="sheets")
    position = models.PositiveIntegerField(default=0)
    paper = models.CharField(max_length=40, default="A3")
    orientation = models.CharField(max_length=10, default="landscape")
    number = models.CharField(max_length=40)
    title = models.CharField(max_length=200, blank=True)
    supplementary_title = models.CharField(max_length=200, blank=True)
    creator = models.CharField(max_length=60, blank=True)
    drawn_on = models.CharField(max_length=20, blank=True)
    checker = models.CharField(max_length=60, blank=True)
    checked_on = models.CharField(max_length=20, blank=True)
    approver = models.CharField(max_length=60, blank=True)
    approved_on = models.CharField(max_length=20, blank=True)
    document_type = models.CharField(max_length=60, blank=True)
    status = models.CharField(max_length=60, blank=True)
    purpose = models.CharField(max_length=60, blank=True)
    #: What a pattern of numbers may name.
    discipline = models.CharField(max_length=10, default="A", blank=True)
    sheet_type = models.CharField(max_length=10, blank=True)
    #: The core's Revisions, oldest first: `revision`, `date`, `description`, `initials`.
    revisions = models.JSONField(default=list)
    #: A shipped template by its key, or one of the project's own by its id.
    template = models.CharField(max_length=36, default="block")
    #: What is typed over on this sheet alone, by the core's FIELDS.
    typed = models.JSONField(default=dict)
    #: What it is plotted with: shipped plot settings by their key, or the project's own by their id. What their device
    #: cannot print on is shown.
    plot_settings = models.CharField(max_length=36, default="file")
    #: What it is drawn with: a pen table so named; blank for the project's.
    pen_table = models.CharField(max_length=36, default="", blank=True)
    #: The upper left corner of a list of the set's drawings, paper mm: `x` and `y`; null for none.
    drawing_list = models.JSONField(null=True, default=None)
    #: Lines that viewports are aligned to and that are never plotted: `x` and `y`, lists of paper mm.
    guides = models.JSONField(default=dict)

    class Meta:
        ordering = ["position", "number"]

    def __str__(self) -> str:
        return f"{self.number} {self.title}".strip()

    @property
    def as_paper(self) -> Paper:
        return Paper.of(self.paper, self.orientation)

    @property
    def revision(self) -> str:
        """The newest revision."""
        return self.revisions[-1]["revision"] if self.revisions else ""


class Viewport(VersionedModel):
    """A window on a view. Its box in paper mm; its centre in the view's u and v, real mm; its scale exact."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="viewports")
    view = models.ForeignKey(View, models.CASCADE, related_name="viewports")
    #: Where it stands among the others: what comes later lies above.
    position = models.PositiveIntegerField(default=0)
    x = models.FloatField()
    y = models.FloatField()
    width = models.FloatField()
    height = models.FloatField()
    shape = models.CharField(max_length=10, default="rectangle")
    #: Of a polygon: x and y of each corner, paper mm from the lower left of its box.
    corners = models.JSONField(default=list)
    centre_u = models.FloatField()
    centre_v = models.FloatField()
    turn = models.FloatField(default=0.0)
    scale_paper = models.PositiveBigIntegerField()
    scale_real = models.PositiveBigIntegerField()
    scale_in_feet = models.BooleanField(default=False)
    pinned = models.BooleanField(default=False)
    framed = models.BooleanField(default=False)
    opaque = models.BooleanField(default=False)
    #: Whether the marks of other views, and the storeys' levels, are seen in it.
    marks = models.BooleanField(default=True)
    levels = models.BooleanField(default=True)
    grid = models.BooleanField(default=True)
    #: By how much its drawing title was moved by hand, paper mm; so, by the view that is marked, the bubbles of marks.
    title_by = models.JSONField(default=no_shift)
    moved_marks = models.JSONField(default=dict)
    title_style = models.CharField(max_length=10, default="plain")
    #: What it is drawn with; blank for the sheet's pen table. And the core's PenChanges: how its pens differ from that.
    pen_table = models.CharField(max_length=36, default="", blank=True)
    pens = models.JSONField(default=dict)
    #: What it shows otherwise than its view does, in the core's Shown; it then has a drawing of its own.
    shown = models.JSONField(default=dict)
    own_linework = models.ForeignKey(Linework, models.PROTECT, null=True, related_name="viewports", editable=False)
    own_drawn_from = models.ForeignKey(ModelVersion, models.SET_NULL, null=True, editable=False)

    class Meta:
        ordering = ["position", "id"]

    @property
    def scale(self) -> Scale:
        return Scale(Fraction(self.scale_paper, self.scale_real), self.scale_in_feet)

    @scale.setter
    def scale(self, scale: Scale) -> None:
        self.scale_paper, self.scale_real = scale.ratio.numerator, scale.ratio.denominator
        self.scale_in_feet = scale.feet

    @property
    def linework(self) -> Linework | None:
        """The drawing that is seen through it: its own, or its view's."""
        return self.own_linework or self.view.linework
