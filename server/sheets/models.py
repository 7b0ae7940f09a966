"""Sheets, the viewports on them, the templates that they start from, and the register that they stand in."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

from django.db import models

from drafting.errors import SheetError
from drafting.schema import dump, parse
from drafting.shading.appearance import Appearance
from drafting.sheets import numbering
from drafting.sheets.paper import Paper
from drafting.sheets.picture import Picture as CorePicture
from drafting.sheets.revision_schemes import DEFAULT_SCHEME, SCHEMES, RevisionScheme
from drafting.sheets.scale import Scale
from drafting.sheets.template import Blank, TemplateSpec, parse_template
from drafting.sheets.template_presets import DEFAULT_TEMPLATE
from server.common import storage
from server.common.models import UuidModel, VersionedModel
from server.projects.models import NamedRow, Project
from server.projects.presets import preset_id
from server.styles.models import PenTable, PlotSettings, default_pen_table, default_plot_settings
from server.views.models import Drawn, View


class Template(NamedRow):
    """A template: one that is built in, or a project's own."""

    #: The core's TemplateSpec.
    spec = models.JSONField()

    class Meta(NamedRow.Meta):
        verbose_name = "template"

    @property
    def as_core(self) -> TemplateSpec:
        return parse_template(self.spec)


def default_template() -> object:
    """The id of the template that a sheet has where nobody has chosen."""
    return preset_id(Template, DEFAULT_TEMPLATE)


class Picture(UuidModel):
    """A picture that templates may show. Its file holds what the core made of it."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="pictures")
    name = models.CharField(max_length=200)
    form = models.CharField(max_length=8)
    width = models.FloatField()
    height = models.FloatField()
    file = models.CharField(max_length=64)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["created"]

    def __str__(self) -> str:
        return self.name

    @property
    def as_core(self) -> CorePicture:
        """With its outlines; the pixels of the others stay in their file."""
        data = storage.path_of(self.file).read_bytes() if self.form == "vector" else b""
        return CorePicture.from_bytes(self.form, self.width, self.height, data, str(self.pk))


def default_scheme() -> Any:
    return dump(SCHEMES[DEFAULT_SCHEME])


class Register(VersionedModel):
    """What holds for all sheets of a project. Each project has one."""

    project = models.OneToOneField(Project, models.CASCADE, related_name="register")
    #: How its sheets are numbered: the core's Pattern.
    number_pattern = models.CharField(max_length=40, default=numbering.STANDARD)
    #: What its sheets are drawn with.
    pen_table = models.ForeignKey(
        PenTable, models.RESTRICT, default=default_pen_table, related_name="registers"
    )
    #: Shown by every template that has a place for a logo.
    logo = models.ForeignKey(Picture, models.SET_NULL, null=True, blank=True, related_name="+")
    #: How its revisions are counted: the core's RevisionScheme.
    revision_scheme = models.JSONField(default=default_scheme)
    #: The colours of materials in pictures, where they differ from the file's; by their names.
    palette = models.JSONField(default=dict)
    #: The same of layers, which go before materials.
    layer_palette = models.JSONField(default=dict)
    #: Scales that were typed and stand on no ladder, kept to be chosen again.
    custom_scales = models.JSONField(default=list, editable=False)

    def __str__(self) -> str:
        return f"Register of {self.project}"

    @property
    def revision_scheme_as_core(self) -> RevisionScheme:
        scheme: RevisionScheme = parse(RevisionScheme, self.revision_scheme, "revision scheme", SheetError)
        return scheme


#: That of a sheet where nobody has chosen.
DISCIPLINE = "A"


def no_offset() -> list[float]:
    return [0.0, 0.0]


class Sheet(VersionedModel):
    """A page of the set. What its title block says beyond these fields is the project's, or derived."""

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
    discipline = models.CharField(max_length=10, default=DISCIPLINE, blank=True)
    sheet_type = models.CharField(max_length=10, blank=True)
    #: The core's Revisions, oldest first.
    revisions = models.JSONField(default=list)
    template = models.ForeignKey(Template, models.RESTRICT, default=default_template, related_name="sheets")
    #: What is typed over on this sheet alone, by the core's FIELDS.
    overrides = models.JSONField(default=dict)
    plot_settings = models.ForeignKey(
        PlotSettings, models.RESTRICT, default=default_plot_settings, related_name="sheets"
    )
    #: What it is drawn with; null for the register's.
    pen_table = models.ForeignKey(PenTable, models.RESTRICT, null=True, blank=True, related_name="sheets")
    #: The upper left corner of a list of the set's drawings, paper mm: `x` and `y`; null for none.
    drawing_list = models.JSONField(null=True, default=None)
    #: Lines that viewports are aligned to and that are never plotted: `x` and `y`, lists of paper mm.
    guides = models.JSONField(default=dict)

    class Meta:
        ordering = ["position", "number"]
        constraints = [models.UniqueConstraint(fields=["project", "number"], name="one_sheet_of_a_number")]

    def __str__(self) -> str:
        return f"{self.number} {self.title}".strip()

    @property
    def as_paper(self) -> Paper:
        return Paper.of(self.paper, self.orientation)

    @property
    def blank(self) -> Blank:
        """The empty sheet: its paper with its template."""
        return Blank(self.as_paper, self.template.as_core)

    @property
    def revision(self) -> str:
        """The newest revision."""
        newest: str = self.revisions[-1]["revision"] if self.revisions else ""
        return newest


class ShadedPicture(models.Model):
    """The picture of a building under the lines of a viewport, under the key of all that it depends on and
    its resolution."""

    key = models.CharField(max_length=64)
    #: Pixels an inch.
    per_inch = models.FloatField()
    #: The core's Window.
    window = models.JSONField()
    file = models.CharField(max_length=64)
    notes = models.JSONField(default=list)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["key", "per_inch"], name="one_picture_of_a_key")]

    def __str__(self) -> str:
        return f"{self.key} at {self.per_inch:g}"


class TracedShadow(models.Model):
    """The areas of shadow in a viewport, under the key of all that they depend on."""

    key = models.CharField(max_length=64, unique=True)
    #: The core's ShadowAreas, as JSON.
    file = models.CharField(max_length=64)

    def __str__(self) -> str:
        return self.key


class ViewportRows(models.QuerySet["Viewport"]):
    """Viewports, chosen by what they show."""

    def in_light(self) -> ViewportRows:
        """Those that may show more than lines."""
        return self.exclude(appearance__isnull=True, view__appearance={}).exclude(appearance={})


class Viewport(Drawn, VersionedModel):
    """A window on a view. Its box in paper mm; its centre in the view's u and v, real mm; its scale exact. It
    has a drawing of its own where it shows something else than its view."""

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
    #: Whether the marks of other views, the storeys' levels, the grid and the names of rooms are seen in it.
    marks = models.BooleanField(default=True)
    levels = models.BooleanField(default=True)
    grid = models.BooleanField(default=True)
    rooms = models.BooleanField(default=True)
    #: Whether the floors of rooms are tinted in it.
    room_fill = models.BooleanField(default=False)
    #: Whether what is annotated in its view is seen in it.
    annotation = models.BooleanField(default=True)
    #: By how much its drawing title was moved by hand, paper mm; so, by the view that is marked, the bubbles
    #: of marks.
    title_offset = models.JSONField(default=no_offset)
    mark_offsets = models.JSONField(default=dict)
    #: The same of the names of rooms, by the ids of these.
    room_offsets = models.JSONField(default=dict)
    title_style = models.CharField(max_length=10, default="plain")
    #: What it is drawn with; null for the sheet's pen table. And the core's PenChanges: how its pens differ
    #: from that.
    pen_table = models.ForeignKey(PenTable, models.RESTRICT, null=True, blank=True, related_name="viewports")
    pens = models.JSONField(default=dict)
    #: What it shows otherwise than its view does, by the names of the core's Shown.
    shown = models.JSONField(default=dict)
    #: The core's Appearance: whether it shows lines, colours or light; null for as its view.
    appearance = models.JSONField(null=True, blank=True, default=None)
    #: The key of the picture that it asks for now, blank where it shows lines only; and the newest that
    #: there is for the screen.
    wanted_picture = models.CharField(max_length=64, blank=True, db_index=True, editable=False)
    shaded = models.ForeignKey(ShadedPicture, models.SET_NULL, null=True, related_name="+", editable=False)
    #: The same of its areas of shadow.
    wanted_areas = models.CharField(max_length=64, blank=True, db_index=True, editable=False)
    traced = models.ForeignKey(TracedShadow, models.SET_NULL, null=True, related_name="+", editable=False)

    #: Its number on its sheet, where it was read together with the others there.
    drawing_number = 0

    objects = models.Manager.from_queryset(ViewportRows)()

    class Meta:
        ordering = ["position", "id"]

    def __str__(self) -> str:
        return f"{self.view} on {self.sheet}"

    @property
    def scale(self) -> Scale:
        return Scale(Fraction(self.scale_paper, self.scale_real), self.scale_in_feet)

    @scale.setter
    def scale(self, scale: Scale) -> None:
        self.scale_paper, self.scale_real = scale.ratio.numerator, scale.ratio.denominator
        self.scale_in_feet = scale.feet

    @property
    def appearance_as_core(self) -> Appearance:
        """What it shows: of its own, or as its view."""
        own = self.view.appearance if self.appearance is None else self.appearance
        appearance: Appearance = parse(Appearance, own, "viewport's appearance", SheetError)
        return appearance

    @property
    def drawn(self) -> Drawn:
        """What its drawing is that of: itself where it shows something else than its view, or its view. While
        its own is not there yet, its view's serves."""
        return self if self.linework_id else self.view
