"""Annotation: what is written and measured on sheets and in views, and what a project keeps for it."""

from __future__ import annotations

import uuid

from django.db import models
from django.db.models import Q

from drafting.annotation.dimensions import DimensionStyle
from drafting.annotation.numbered_notes import MAX_NUMBER, ListedNote
from drafting.annotation.pieces import AnyPiece, parse_piece
from drafting.annotation.styles import TextStyle, parse_style
from drafting.annotation.symbols import SymbolSpec, parse_symbol
from server.common.models import VersionedModel
from server.projects.models import NamedRow, Project
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
    #: By which pieces that are chosen and moved together are known; blank for one that stands alone.
    group = models.CharField(max_length=40, blank=True)
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


class NoteOfList(VersionedModel):
    """A note of a project's list, which stands on drawings as its number."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="listed_notes")
    number = models.CharField(max_length=MAX_NUMBER)
    text = models.TextField(blank=True)

    class Meta:
        ordering = ["number"]
        verbose_name = "note of the list"
        verbose_name_plural = "notes of the list"

    def __str__(self) -> str:
        return self.number

    @property
    def as_core(self) -> ListedNote:
        return ListedNote(self.number, self.text)


class AnnotationStyle(VersionedModel):
    """A named style of words or of dimensions."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="annotation_styles")
    name = models.CharField(max_length=100)
    #: The core's TextStyle or DimensionStyle.
    spec = models.JSONField()

    class Meta:
        ordering = ["name", "id"]
        verbose_name = "style of annotation"
        verbose_name_plural = "styles of annotation"

    def __str__(self) -> str:
        return self.name

    @property
    def as_core(self) -> TextStyle | DimensionStyle:
        return parse_style(self.spec)


class LibrarySymbol(NamedRow):
    """A symbol: one that is built in, or of a project's own library."""

    #: The core's SymbolSpec.
    spec = models.JSONField()

    class Meta(NamedRow.Meta):
        verbose_name = "symbol"

    @property
    def as_core(self) -> SymbolSpec:
        return parse_symbol(self.spec)


class TableFile(models.Model):
    """A CSV or XLSX file that tables take their cells from, as it was brought in last."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, models.CASCADE, related_name="table_files")
    name = models.CharField(max_length=200)
    #: The hash of the file that was brought in.
    file = models.CharField(max_length=64)
    cells = models.JSONField()
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["project", "name"], name="one_table_file_of_a_name")]

    def __str__(self) -> str:
        return self.name
