"""Annotation: what is written and measured on sheets and in views."""

from __future__ import annotations

from django.db import models
from django.db.models import Q

from drafting.annotation.pieces import AnyPiece, parse_piece
from server.common.models import VersionedModel
from server.projects.models import Project
from server.sheets.models import Sheet, Viewport
from server.views.models import View


class Annotation(VersionedModel):
    """A piece of annotation. It stands in a view, and is seen in every viewport of that; or on a sheet, there
    through one of its viewports or on the bare paper."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="annotations")
    view = models.ForeignKey(View, models.CASCADE, null=True, blank=True, related_name="annotations")
    sheet = models.ForeignKey(Sheet, models.CASCADE, null=True, blank=True, related_name="annotations")
    #: What it is attached through, and moves with.
    viewport = models.ForeignKey(Viewport, models.CASCADE, null=True, blank=True, related_name="annotations")
    #: Where it stands among the others: what comes later lies above.
    position = models.PositiveIntegerField(default=0)
    #: The core's AnyPiece.
    spec = models.JSONField()

    class Meta:
        ordering = ["position", "id"]
        verbose_name = "piece of annotation"
        verbose_name_plural = "annotation"
        constraints = [
            models.CheckConstraint(
                condition=Q(view__isnull=True) ^ Q(sheet__isnull=True), name="in_a_view_or_on_a_sheet"
            ),
            models.CheckConstraint(
                condition=Q(viewport__isnull=True) | Q(sheet__isnull=False),
                name="through_a_viewport_on_a_sheet",
            ),
        ]

    def __str__(self) -> str:
        return str(self.spec.get("text", self.spec.get("kind", "")))[:60]

    @property
    def as_core(self) -> AnyPiece:
        return parse_piece(self.spec)
