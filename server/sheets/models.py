"""Sheets and the viewports on them."""

from __future__ import annotations

import uuid
from fractions import Fraction

from django.db import models

from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from server.config.versioned import VersionedModel
from server.projects.models import Project
from server.views.models import View


class Sheet(VersionedModel):
    """A page of the set. What its title block says beyond these fields is the project's, or derived."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    project = models.ForeignKey(Project, models.CASCADE, related_name="sheets")
    position = models.PositiveIntegerField(default=0)
    paper = models.CharField(max_length=10, default="A3")
    orientation = models.CharField(max_length=10, default="landscape")
    number = models.CharField(max_length=40)
    title = models.CharField(max_length=200, blank=True)
    supplementary_title = models.CharField(max_length=200, blank=True)
    revision = models.CharField(max_length=20, blank=True)
    date = models.CharField(max_length=20, blank=True)
    creator = models.CharField(max_length=60, blank=True)
    approver = models.CharField(max_length=60, blank=True)
    document_type = models.CharField(max_length=60, blank=True)
    status = models.CharField(max_length=60, blank=True)

    class Meta:
        ordering = ["position", "number"]

    def __str__(self) -> str:
        return f"{self.number} {self.title}".strip()

    @property
    def as_paper(self) -> Paper:
        return Paper.of(self.paper, self.orientation)


class Viewport(VersionedModel):
    """A window on a view. Its frame in paper mm; its centre in the view's u and v, real mm; its scale exact."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="viewports")
    view = models.ForeignKey(View, models.CASCADE, related_name="viewports")
    position = models.PositiveIntegerField(default=0)
    x = models.FloatField()
    y = models.FloatField()
    width = models.FloatField()
    height = models.FloatField()
    centre_u = models.FloatField()
    centre_v = models.FloatField()
    scale_paper = models.PositiveBigIntegerField()
    scale_real = models.PositiveBigIntegerField()

    class Meta:
        ordering = ["position", "id"]

    @property
    def scale(self) -> Scale:
        return Scale(Fraction(self.scale_paper, self.scale_real))

    @scale.setter
    def scale(self, scale: Scale) -> None:
        self.scale_paper, self.scale_real = scale.ratio.numerator, scale.ratio.denominator
