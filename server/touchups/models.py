"""Touch-ups: what drafters draw otherwise in the drawings of a view."""

from __future__ import annotations

from django.db import models

from drafting.touchup.touch_up import TouchUp as CoreTouchUp
from drafting.touchup.touch_up import parse_touch_up
from server.common.models import VersionedModel
from server.projects.models import Project
from server.sheets.models import Viewport
from server.views.models import View


class TouchUp(VersionedModel):
    """A touch-up of a view. It holds in all viewports of that, or in one of them."""

    project = models.ForeignKey(Project, models.CASCADE, related_name="touch_ups")
    view = models.ForeignKey(View, models.CASCADE, related_name="touch_ups")
    viewport = models.ForeignKey(Viewport, models.CASCADE, null=True, blank=True, related_name="touch_ups")
    #: Where it stands among the others: what comes later goes over what came before.
    position = models.PositiveIntegerField(default=0)
    #: The core's TouchUp.
    spec = models.JSONField()

    class Meta:
        ordering = ["position", "id"]
        verbose_name = "touch-up"

    def __str__(self) -> str:
        return f"{self.spec['choice']['kind']} in {self.view}"

    @property
    def as_core(self) -> CoreTouchUp:
        return parse_touch_up(self.spec)
