"""Views, and the linework that was drawn for them."""

from __future__ import annotations

from typing import Any

from django.db import models

from drafting.errors import ViewError
from drafting.schema import parse
from drafting.shading.appearance import Appearance
from drafting.touchup.simplification import Simplification
from drafting.views.spec import AnyView, parse_view_spec
from server.buildings.models import ModelVersion
from server.common.models import VersionedModel
from server.jobs.models import Job
from server.projects.models import Project

#: How a drawing stands: never drawn, as it is asked for now, as it was asked for earlier, or kept at an older
#: version of
#: the model on purpose.
STATES = ("undrawn", "up_to_date", "out_of_date", "held")


class Linework(models.Model):
    """A drawing stored under the key of all that it depends on: model version, view and engine."""

    key = models.CharField(primary_key=True, max_length=64)
    file = models.CharField(max_length=64)
    extents = models.JSONField(null=True)
    #: The same of the building alone, without the ground about it.
    own_extents = models.JSONField(null=True)
    notes = models.JSONField(default=list)
    lines = models.PositiveIntegerField()
    #: The axes that it is measured along, in model mm: `right`, `up`, `origin`.
    axes = models.JSONField(default=dict)

    def __str__(self) -> str:
        return self.key


class Subset(VersionedModel):
    """A named group of elements, by their ids in the building file, that views can be limited to."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="subsets")
    name = models.CharField(max_length=200)
    elements = models.JSONField()

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class NamedLineSettings(VersionedModel):
    """Line settings that are kept by name, to be given to other views."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="line_settings")
    name = models.CharField(max_length=200)
    #: The core's LineSettings.
    settings = models.JSONField()

    class Meta:
        ordering = ["name"]
        verbose_name = "set of line settings"

    def __str__(self) -> str:
        return self.name


class Drawn(models.Model):
    """Something that is drawn. It asks for a drawing by its key, and has the newest that there is.

    Attributes:
        wanted: the key of the drawing that it asks for now; blank where there is no model to draw from.
        linework: the newest drawing of it that there is.
        drawn_from: the model version of that drawing.
    """

    wanted = models.CharField(max_length=64, blank=True, db_index=True, editable=False)
    linework = models.ForeignKey(Linework, models.PROTECT, null=True, related_name="+", editable=False)
    drawn_from = models.ForeignKey(ModelVersion, models.SET_NULL, null=True, related_name="+", editable=False)

    class Meta:
        abstract = True


class View(Drawn, VersionedModel):
    """A saved look at the model."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="views")
    name = models.CharField(max_length=200)
    #: The core's description of it.
    spec = models.JSONField()
    position = models.PositiveIntegerField(default=0)
    subset = models.ForeignKey(Subset, models.SET_NULL, null=True, blank=True, related_name="views")
    held = models.BooleanField(default=False)
    #: The core's Appearance, which holds in all its viewports that have none of their own.
    appearance = models.JSONField(default=dict, blank=True)
    #: The core's Simplification, for viewports at small scales; null where it is not simplified.
    simplification = models.JSONField(null=True, blank=True, default=None)

    class Meta:
        ordering = ["position", "name"]

    def __str__(self) -> str:
        return self.name

    @property
    def as_core(self) -> AnyView:
        """Its own description."""
        return parse_view_spec(self.spec)

    def check_stored(self) -> None:
        """Read all that is stored of it as the core does.

        Raises:
            ViewError: something was damaged.
        """
        parse(Appearance, self.appearance, "view's appearance", ViewError)
        _ = self.as_core, self.simplified_by

    @property
    def simplified_by(self) -> Simplification | None:
        """The rule by which it is simplified at small scales."""
        if self.simplification is None:
            return None
        rule: Simplification = parse(Simplification, self.simplification, "rule", ViewError)
        return rule

    @property
    def is_received(self) -> bool:
        """Whether it is a drawing from others, and not drawn from the building."""
        return bool(self.spec["kind"] == "received")

    def shown_with(self, shown: dict[str, Any]) -> AnyView:
        """What is drawn: its description, limited to the elements of its subset, and with what `shown` names
        in place of its own.

        Raises:
            ViewError: something is named that a view cannot leave out.
        """
        limited = {} if self.subset is None else {"only": self.subset.elements}
        return parse_view_spec({**self.spec, "shown": {**self.spec.get("shown", {}), **limited, **shown}})


class DrawJob(models.Model):
    """A drawing that is to be made of a model version, or of the file of a drawing from others; the job's
    subject is its key."""

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="draw_job")
    model_version = models.ForeignKey(ModelVersion, models.CASCADE, null=True, related_name="+")
    spec = models.JSONField()


class ReceivedFile(models.Model):
    """The file of a drawing from others."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="received_files")
    name = models.CharField(max_length=250)
    #: Its hash.
    file = models.CharField(max_length=64)
    #: The core's ReceivedFacts.
    facts = models.JSONField()
    #: The job that looked at it, by which whoever brought it in knows it again.
    job = models.UUIDField()
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-created"]

    def __str__(self) -> str:
        return self.name


class ReceiveJob(models.Model):
    """A file that is to be looked at. `waiting` is the name of the temporary file that holds it."""

    job = models.OneToOneField(Job, models.CASCADE, primary_key=True, related_name="receive_job")
    name = models.CharField(max_length=250)
    waiting = models.CharField(max_length=80)
